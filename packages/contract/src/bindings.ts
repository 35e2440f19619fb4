// The rules of all fields of a house, and setting many at once.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsUUID, Min } from 'class-validator';
import type { Rule } from '@dellum/core';
import type { FieldCount } from './entries.js';
import { ruleDtos, type RuleDto } from './rules.js';
import { IsWhole, MayLack, NestedByKind } from './decorators.js';

/** One rule for many fields: a new one, a copy of another field's, one level of a catalog each, or none at all. */
export class SetRulesDto {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose the fields first.' })
  @ArrayMaxSize(500)
  @IsUUID(undefined, { each: true })
  fields!: string[];

  @MayLack()
  @NestedByKind(() => ruleDtos)
  rule?: RuleDto;

  /** The field whose rule is copied, and nothing of it but the rule. */
  @MayLack()
  @IsUUID()
  from?: string;

  /** The catalog whose levels the fields take as a chain, outermost first: each under what those before it hold. */
  @MayLack()
  @IsUUID()
  chain?: string;
}

/** What a change of a rule does to one field. */
export interface RuleImpact extends FieldCount {
  /** Entries outside by the rule that holds now. */
  readonly now: number;
  /** Why the rule cannot be set on this field; it is passed over. */
  readonly unfit?: string;
}

/** A rule set or cleared in one act, in one field or in many. */
export interface RuleChange {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly fields: readonly { readonly fieldId: string; readonly before: Rule | null; readonly after: Rule | null }[];
  /** True while at least one of the fields still has the rule that this act gave it. */
  readonly standing: boolean;
}
export class TakeBackRulesDto {
  /** The change to take back. */
  @IsWhole()
  @Min(1)
  change!: number;
}
/** What taking back did; fields whose rule was changed since stay as they are. */
export interface RulesTakenBack {
  readonly set: number;
  readonly changed: number;
}
