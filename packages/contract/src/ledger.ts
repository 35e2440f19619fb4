// The ledger as it is looked at: who changed what when, from what to what.
import { Type } from 'class-transformer';
import { IsIn, IsUUID, Matches, MaxLength, Min } from 'class-validator';
import { IsText, IsWhole, MayLack } from './decorators.js';

/** The sorts of acts that one narrows the ledger to. */
export const ledgerKinds = ['entries', 'lists', 'rules', 'sheets', 'forms', 'people', 'sign-ins', 'house'] as const;
export type LedgerKind = (typeof ledgerKinds)[number];

const day = { message: 'Write the day like 2026-11-24.' };

export class LedgerQueryDto {
  @MayLack()
  @IsUUID()
  person?: string;

  @MayLack()
  @IsUUID()
  register?: string;

  /** The key of a field of the register. */
  @MayLack()
  @IsText()
  @MaxLength(60)
  field?: string;

  /** A value that was written, or written over. */
  @MayLack()
  @IsText()
  @MaxLength(500)
  value?: string;

  /** The first and the last day, of the house. */
  @MayLack()
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, day)
  from?: string;

  @MayLack()
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, day)
  until?: string;

  @MayLack()
  @IsIn(ledgerKinds)
  kind?: LedgerKind;

  /** Only what was before this line. */
  @MayLack()
  @Type(() => Number)
  @IsWhole()
  @Min(1)
  before?: number;
}

export interface LedgerLine {
  /** Several lines bear one number where an act wrote into several fields of an entry. */
  readonly id: number;
  /** ISO 8601. */
  readonly at: string;
  /** Null where the house did it by itself, or nobody knows who tried. */
  readonly by: string | null;
  readonly act: string;
  readonly registerId: string | null;
  readonly entryId: string | null;
  readonly field: string | null;
  readonly from: string | null;
  readonly to: string | null;
  /** What it was done to, where the line names it: a catalog, a person, what an entry held. */
  readonly about: string | null;
}

export interface LedgerPage {
  readonly lines: readonly LedgerLine[];
  /** True when there are older ones. */
  readonly more: boolean;
}
