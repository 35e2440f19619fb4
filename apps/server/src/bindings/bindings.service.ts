// Bindings: the rule of a field, tried on the entries before it is set.
import { Injectable } from '@nestjs/common';
import { kindLabel, stands, type Rule } from '@dellum/core';
import type { RuleDto, RuleTrial } from '@dellum/contract';
import { BuildService, fieldWithId } from '../build/build.service.js';
import type { FieldBuild, HouseBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { Counts } from '../counts/counts.js';
import { Database } from '../database/database.js';
import { Ledger } from '../ledger/ledger.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SheetsStore } from '../sheets/sheets.store.js';

const examplesShown = 5;

@Injectable()
export class BindingsService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly catalogs: CompiledCatalogs,
    private readonly counts: Counts,
    private readonly sheets: SheetsStore,
    private readonly ledger: Ledger,
  ) {}

  /** What the draft of a rule would find in the entries as they stand; nothing is stored. */
  async trial(caller: Caller, fieldId: string, dto: RuleDto): Promise<RuleTrial> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const field = bindable(build, fieldId);
    const drafted = { ...field, rule: ruleOf(build, dto) };
    const catalogs = await this.catalogs.some(db, build, [dto.catalogId]);
    const counts = (await this.counts.ofFields(db, caller.houseId, [fieldId])).get(fieldId) ?? new Map<string, number>();
    const outside = [...counts].filter(([value]) => !stands(drafted, value, { locale: build.locale, catalogs }).right);
    const sum = (rows: Iterable<readonly [string, number]>) => [...rows].reduce((total, [, entries]) => total + entries, 0);
    const examples = outside.sort((a, b) => b[1] - a[1]).slice(0, examplesShown).map(([value, entries]) => ({ value, entries }));
    return { held: sum(counts), outside: sum(outside), examples };
  }

  async set(caller: Caller, fieldId: string, dto: RuleDto | null): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const field = bindable(build, fieldId);
      const rule = dto && ruleOf(build, dto);
      await this.sheets.setRule(trx, caller.houseId, fieldId, rule);
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: rule ? 'rule.set' : 'rule.cleared', registerId: field.registerId, field: field.key, detail: { before: field.rule, after: rule } },
      ]);
    });
  }
}

function bindable(build: HouseBuild, fieldId: string): FieldBuild {
  const field = fieldWithId(build, fieldId);
  if (build.registers.get(field.registerId)!.source) throw notFound('This field of an entry sheet');
  if (field.kind !== 'text') throw new ProblemError('kind-unfit', `${field.heading} holds ${kindLabel(field.kind)}; catalogs give texts. Choose a text field.`);
  return field;
}

function ruleOf(build: HouseBuild, dto: RuleDto): Rule {
  if (!build.catalogs.has(dto.catalogId)) throw notFound('This catalog');
  const { catalogId, mayBeBlank, others, hint, refusalText } = dto;
  return { kind: 'catalog', catalogId, mayBeBlank, others, hint, refusalText };
}
