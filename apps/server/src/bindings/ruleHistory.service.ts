// The history of rules and bindings: who set what, one act for however many fields, taken back as one.
import { Injectable } from '@nestjs/common';
import { catalogIdOf, fieldsNamedBy, grouped, type Rule } from '@dellum/core';
import type { RuleChange, RulesTakenBack } from '@dellum/contract';
import { StructureService } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { Database } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { RuleHistoryStore } from './ruleHistory.store.js';

const mostShown = 200;
const mostInOne = 1000;
const isUuid = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/u;

/** Rules as the database keeps them: two that are equal are written equally. */
const same = (a: Rule | null, b: Rule | null): boolean => JSON.stringify(a) === JSON.stringify(b);

@Injectable()
export class RuleHistoryService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: RuleHistoryStore,
    private readonly sheets: SheetsStore,
    private readonly ledger: LedgerStore,
  ) {}

  async changes(caller: Caller, fieldId: string | undefined): Promise<RuleChange[]> {
    if (fieldId !== undefined && !isUuid.test(fieldId)) throw notFound('This field');
    const build = await this.builds.now(caller.houseId);
    const rows = await this.store.rows(this.database.kysely, caller.houseId, { fieldId }, mostShown);
    return [...grouped(rows, ({ at, by }) => `${at.toISOString()} ${by ?? ''}`)].map(([, own]) => ({
      id: own[0]!.id,
      at: own[0]!.at.toISOString(),
      by: own[0]!.by ?? 'Dellum',
      fields: own.map((row) => ({ fieldId: row.fieldId, before: row.before, after: row.after })),
      standing: own.some((row) => same(build.fields.get(row.fieldId)?.rule ?? null, row.after)),
    }));
  }

  /** Gives fields the rules that they had before an act, unless they were changed since. */
  takeBack(caller: Caller, change: number): Promise<RulesTakenBack> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const rows = await this.store.rows(trx, caller.houseId, { act: change }, mostInOne);
      if (rows.length === 0) throw notFound('This change');
      const back = rows.flatMap((row) => {
        const field = build.fields.get(row.fieldId);
        return field && same(field.rule, row.after) && canStand(build, field, row.before) ? [{ field, rule: row.before }] : [];
      });
      if (back.length === 0)
        throw new ProblemError('in-use', 'The rule was changed since, or what it named is gone. Set it by hand.', { users: [] });
      await this.sheets.setRules(
        trx,
        caller.houseId,
        back.map(({ field, rule }) => ({ id: field.id, rule })),
      );
      await this.ledger.write(
        trx,
        caller.houseId,
        back.map(({ field, rule }) => ({
          personId: caller.id,
          act: rule ? 'rule.set' : 'rule.cleared',
          registerId: field.registerId,
          field: field.key,
          detail: { before: field.rule, after: rule },
        })),
      );
      return { set: back.length, changed: rows.length - back.length };
    });
  }
}

/** Whether all that a rule names is still there. */
function canStand(build: HouseBuild, field: FieldBuild, rule: Rule | null): boolean {
  const catalogId = catalogIdOf(rule);
  if (catalogId !== undefined && !build.catalogs.has(catalogId)) return false;
  const register = build.registers.get(field.registerId)!;
  return fieldsNamedBy(rule).every((key) => register.fields.some((known) => known.key === key));
}
