// Fields without repeats: which values other entries hold already, in any spelling, and who may store one now.
import { Injectable } from '@nestjs/common';
import { matchKey, withTexts, type Cells } from '@dellum/core';
import { sql } from 'kysely';
import type { FieldBuild, RegisterBuild } from '../structure/structure.store.js';
import { countKey, CountsStore } from '../counts/counts.store.js';
import type { Reader, Trx } from '../database/database.js';
import { ProblemError } from '../problems/index.js';

/** A value that is to stand in a field without repeats. */
export interface Wanted {
  readonly field: FieldBuild;
  readonly value: string;
}
/** Whether an entry other than the one whose cell holds `own` holds the value, in any spelling. */
export type HeldElsewhere = (field: FieldBuild, value: string, own: string) => boolean;

const keyOf = ({ field, value }: Wanted): string => `${field.id} ${matchKey(countKey(value))}`;

@Injectable()
export class RepeatsService {
  constructor(private readonly counts: CountsStore) {}

  /** Looks without holding anything: for a first verdict. */
  async look(db: Reader, houseId: string, wanted: readonly Wanted[]): Promise<HeldElsewhere> {
    const held = await this.counts.alike(
      db,
      houseId,
      [...new Set(wanted.map(({ field }) => field.id))],
      [...new Set(wanted.map(({ value }) => countKey(value)))],
    );
    const entries = new Map<string, number>();
    for (const { fieldId, value, entries: count } of held)
      entries.set(`${fieldId} ${matchKey(value)}`, (entries.get(`${fieldId} ${matchKey(value)}`) ?? 0) + count);
    return (field, value, own) => {
      const key = keyOf({ field, value });
      return (entries.get(key) ?? 0) - (own !== '' && keyOf({ field, value: own }) === key ? 1 : 0) > 0;
    };
  }

  /** Lets nobody else store these values, in any spelling, until the transaction ends; in one order, so that none deadlock. Then looks. */
  async hold(trx: Trx, houseId: string, wanted: readonly Wanted[]): Promise<HeldElsewhere> {
    if (wanted.length === 0) return () => false;
    const locks = [...new Set(wanted.map(keyOf))].sort();
    await sql`select pg_advisory_xact_lock(hashtextextended(lock, 1)) from (select unnest(${locks}::text[]) as lock) ordered`.execute(trx);
    return this.look(trx, houseId, wanted);
  }

  /** Changed entries without what would be a repeat: such cells keep what they hold. `left` counts them. */
  async leaveOut(
    trx: Trx,
    houseId: string,
    register: RegisterBuild,
    before: ReadonlyMap<string, Cells>,
    after: ReadonlyMap<string, Cells>,
  ): Promise<{ after: Map<string, Cells>; left: number }> {
    const changed = uniqueIn(register).flatMap((field) =>
      [...after].flatMap(([entry, cells]) => {
        const own = before.get(entry)?.[field.key] ?? '';
        const value = cells[field.key] ?? '';
        return value === '' || value === own ? [] : [{ entry, field, value, own }];
      }),
    );
    const heldElsewhere = await this.hold(trx, houseId, changed);
    const brought = new Set<string>();
    const kept = new Map(after);
    let left = 0;
    for (const { entry, field, value, own } of changed) {
      const repeated = heldElsewhere(field, value, own) || brought.has(keyOf({ field, value }));
      brought.add(keyOf({ field, value }));
      if (!repeated) continue;
      kept.set(entry, withTexts(kept.get(entry)!, [[field.key, own]]));
      left++;
    }
    return { after: kept, left };
  }

  /** What some new entries can begin with: no value that must stand once, where another entry holds it or several begin together. */
  async freshCells(trx: Trx, houseId: string, register: RegisterBuild, cells: Cells, count: number): Promise<Cells> {
    const wanted = uniqueIn(register).flatMap((field) => (cells[field.key] === undefined ? [] : [{ field, value: cells[field.key]! }]));
    if (wanted.length === 0) return cells;
    const heldElsewhere = await this.hold(trx, houseId, wanted);
    return withTexts(
      cells,
      wanted.flatMap(({ field, value }) => (count > 1 || heldElsewhere(field, value, '') ? [[field.key, ''] as const] : [])),
    );
  }
}

/** Says that a value cannot come back where it was. */
export const repeatedBy = (value: string): ProblemError =>
  new ProblemError(
    'value-refused',
    `Another entry holds${value === '' ? ' by now what may stand only once here' : ` “${value}” by now, and it may stand only once`}. Change that one first, then bring this one back.`,
    { verdict: 'repeat', suggestions: [] },
  );

/** The fields of a register in which a value that another entry holds is refused. */
const uniqueIn = ({ fields }: RegisterBuild): FieldBuild[] => fields.filter(({ rule }) => rule?.noRepeats && rule.others === 'refuse');
