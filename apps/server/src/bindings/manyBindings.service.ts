// One rule for many fields at once: bound, copied or cleared, tried on the entries before it is set.
import { Injectable } from '@nestjs/common';
import { catalogIdOf, chainRules, fieldsNamedBy, forbidsRule, ruleFaults, type CatalogRule, type Rule } from '@dellum/core';
import type { FieldCount, RuleImpact, SetRulesDto } from '@dellum/contract';
import { StructureService, entryFieldWithId, fieldWithId } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { countOf, entriesIn, OutsideService } from '../outside/outside.service.js';
import { Database, type Reader } from '../database/database.js';
import { todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { readRule } from './readRule.js';

/** A field with the rule it is to get, or why it cannot get it. */
type Wanted = { readonly field: FieldBuild; readonly rule: Rule | null } | { readonly field: FieldBuild; readonly unfit: string };

@Injectable()
export class ManyBindingsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly outside: OutsideService,
    private readonly sheets: SheetsStore,
    private readonly ledger: LedgerStore,
  ) {}

  /** Every field of the entry sheets with how many entries hold something, and how many are outside. */
  async all(caller: Caller): Promise<FieldCount[]> {
    const build = await this.builds.now(caller.houseId);
    const fields = [...build.fields.values()].filter((field) => !build.registers.get(field.registerId)!.source);
    const found = await this.outside.of(this.database.kysely, build, fields);
    return fields.map((field) => countOf(field, found));
  }

  async trial(caller: Caller, dto: SetRulesDto): Promise<RuleImpact[]> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const wanted = await this.wanted(db, build, dto);
    const fields = wanted.map(({ field }) => field);
    const now = await this.outside.of(db, build, fields);
    const then = await this.outside.of(
      db,
      build,
      wanted.map((one) => ('unfit' in one ? one.field : { ...one.field, rule: one.rule })),
    );
    return wanted.map((one) => {
      return {
        ...countOf(one.field, then),
        held: now.get(one.field.id)!.held,
        now: entriesIn(now.get(one.field.id)!),
        ...('unfit' in one && { unfit: one.unfit }),
      };
    });
  }

  /** Sets the rule where it fits, all in one transaction. */
  set(caller: Caller, dto: SetRulesDto): Promise<{ set: number }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const wanted = await this.wanted(trx, build, dto);
      const fitting = wanted.flatMap((one) => ('unfit' in one ? [] : [one]));
      const broken = dto.chain === undefined ? undefined : wanted.find((one) => 'unfit' in one);
      if (broken && 'unfit' in broken) throw new ProblemError('kind-unfit', `The chain breaks at ${broken.field.heading}: ${broken.unfit}`);
      if (fitting.length === 0) throw new ProblemError('kind-unfit', 'The rule fits none of these fields. Choose fields of the same kind.');
      await this.sheets.setRules(
        trx,
        caller.houseId,
        fitting.map(({ field, rule }) => ({ id: field.id, rule })),
      );
      await this.ledger.write(
        trx,
        caller.houseId,
        fitting.map(({ field, rule }) => ({
          personId: caller.id,
          act: rule ? 'rule.set' : 'rule.cleared',
          registerId: field.registerId,
          field: field.key,
          detail: { before: field.rule, after: rule },
        })),
      );
      return { set: fitting.length };
    });
  }

  private async wanted(db: Reader, build: HouseBuild, dto: SetRulesDto): Promise<Wanted[]> {
    const fields = [...new Set(dto.fields)].map((id) => entryFieldWithId(build, id));
    const copied = dto.from === undefined ? null : fieldWithId(build, dto.from).rule;
    const chain = dto.chain === undefined ? undefined : chainOf(build, fields, dto.chain);
    const catalogs = await this.catalogs.some(
      db,
      build,
      [dto.rule && 'catalogId' in dto.rule ? dto.rule.catalogId : [], dto.chain ?? [], catalogIdOf(copied) ?? []].flat(),
    );
    return fields.map((field, at): Wanted => {
      const register = build.registers.get(field.registerId)!;
      try {
        const rule = chain ? chain[at]! : dto.rule ? readRule(build, field, dto.rule) : copied;
        if (!rule) return { field, rule };
        const named = fieldsNamedBy(rule);
        if (named.includes(field.key)) return { field, unfit: `${field.heading} cannot depend on itself.` };
        const missing = named.find((key) => !register.fields.some((other) => other.key === key));
        if (missing) return { field, unfit: `${register.title} has no field “${missing}”, on which the rule depends.` };
        const [fault] = ruleFaults(rule, field, {
          locale: build.locale,
          catalogs,
          today: todayOf(new Date(), build.locale),
          fields: register.fields,
          rules: new Map(register.fields.map((other) => [other.key, chain?.[fields.indexOf(other)] ?? other.rule])),
        });
        // A chain that is longer than its catalog is deep cannot hold together.
        return fault && (forbidsRule(fault) || (chain && fault.part === 'catalog')) ? { field, unfit: fault.message } : { field, rule };
      } catch (error) {
        if (error instanceof ProblemError) return { field, unfit: error.message };
        throw error;
      }
    });
  }
}

/** The rules that make a chain of some fields; they must belong to one register. */
function chainOf(build: HouseBuild, fields: readonly FieldBuild[], catalogId: string): readonly CatalogRule[] {
  if (!build.catalogs.has(catalogId)) throw notFound('This catalog');
  if (fields.length < 2)
    throw new ProblemError('not-valid', 'A chain needs two fields at least. Choose the outermost and those under it.', {
      faults: { fields: 'Choose two at least.' },
    });
  if (new Set(fields.map(({ registerId }) => registerId)).size > 1)
    throw new ProblemError('not-valid', 'The fields of a chain belong to one sheet. Choose fields of one sheet only.', {
      faults: { fields: 'Choose fields of one sheet.' },
    });
  return chainRules(
    catalogId,
    fields.map(({ key }) => key),
  );
}
