// Bindings: the rule of a field, tried on the entries before it is set.
import { Injectable } from '@nestjs/common';
import {
  catalogIdOf,
  forbidsRule,
  freeAmong,
  grouped,
  newRule,
  ruleFaults,
  type CatalogRule,
  type Rule,
  type RuleFault,
} from '@dellum/core';
import { ruleMark, type NewListDto, type RuleDto, type RuleTrial } from '@dellum/contract';
import { StructureService, entryFieldWithId } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { entriesIn, OutsideService } from '../outside/outside.service.js';
import { Database, type Reader } from '../database/database.js';
import { todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { GrowingListsService } from '../ranges/growingLists.service.js';
import { listValues, readRule } from './readRule.js';

const examplesShown = 5;

@Injectable()
export class BindingsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly outside: OutsideService,
    private readonly sheets: SheetsStore,
    private readonly ledger: LedgerStore,
    private readonly lists: GrowingListsService,
  ) {}

  /** What the draft of a rule would find in the entries as they stand; nothing is stored. */
  async trial(caller: Caller, fieldId: string, dto: RuleDto): Promise<RuleTrial> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const field = entryFieldWithId(build, fieldId);
    const rule = readRule(build, field, dto);
    const found = (await this.outside.of(db, build, [{ ...field, rule }])).get(fieldId)!;
    const byValue = grouped(found.outside, ({ cells }) => cells[field.key] ?? '');
    const examples = [...byValue]
      .map(([value, rows]) => ({ value, entries: rows.reduce((sum, { entries }) => sum + entries, 0) }))
      .sort((a, b) => b.entries - a.entries)
      .slice(0, examplesShown);
    return { held: found.held, outside: entriesIn(found), examples, faults: await this.faults(db, build, field, rule) };
  }

  /** What makes a rule impossible or pointless. */
  private async faults(db: Reader, build: HouseBuild, field: FieldBuild, rule: Rule): Promise<readonly RuleFault[]> {
    const register = build.registers.get(field.registerId)!;
    const catalogs = await this.catalogs.some(db, build, [catalogIdOf(rule) ?? []].flat());
    return ruleFaults(rule, field, {
      locale: build.locale,
      catalogs,
      today: todayOf(new Date(), build.locale),
      fields: register.fields,
      rules: new Map(register.fields.map((other) => [other.key, other.rule])),
    });
  }

  /** A new list for the field, in one act: its values on a source sheet, a growing range, a catalog, and the field bound to it. */
  newList(caller: Caller, fieldId: string, dto: NewListDto): Promise<{ catalogId: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const field = entryFieldWithId(build, fieldId);
      const title =
        dto.title ??
        freeAmong(
          field.heading,
          build.ranges.map(({ name }) => name),
        );
      const kind = field.kind === 'several values' ? 'text' : field.kind;
      const values = listValues(dto.values, { ...field, kind });
      const { catalogId } = await this.lists.make(trx, caller, build, {
        sheet: { title: 'Lists', note: 'Lists of values, each offered by the fields that are bound to it.' },
        title,
        kind,
        values,
        note: `Made for ${field.heading}.`,
      });
      const rule: Rule = { ...newRule('catalog', field.rule ?? undefined), catalogId } as CatalogRule;
      await this.sheets.setRule(trx, caller.houseId, fieldId, rule);
      await this.ledger.write(trx, caller.houseId, [
        {
          personId: caller.id,
          act: 'rule.set',
          registerId: field.registerId,
          field: field.key,
          detail: { before: field.rule, after: rule },
        },
      ]);
      return { catalogId };
    });
  }

  async set(caller: Caller, fieldId: string, dto: RuleDto | null): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const field = entryFieldWithId(build, fieldId);
      if (dto?.seen !== undefined && dto.seen !== ruleMark(field.rule))
        throw new ProblemError(
          'rule-changed',
          `Somebody else has set another rule for ${field.heading} since you began. Look at the rule as it is now, then change it.`,
        );
      const rule = dto && readRule(build, field, dto);
      const [fault] = rule ? (await this.faults(trx, build, field, rule)).filter(forbidsRule) : [];
      if (fault) throw new ProblemError('not-valid', fault.message, { faults: { [fault.part]: fault.message } });
      await this.sheets.setRule(trx, caller.houseId, fieldId, rule);
      await this.ledger.write(trx, caller.houseId, [
        {
          personId: caller.id,
          act: rule ? 'rule.set' : 'rule.cleared',
          registerId: field.registerId,
          field: field.key,
          detail: { before: field.rule, after: rule },
        },
      ]);
    });
  }
}
