// The kind of a field is changed: what its entries hold is read anew, what cannot be read stays and is outside.
import { Injectable } from '@nestjs/common';
import {
  format,
  isBlank,
  kindLabel,
  liesOver,
  longestValue,
  newRule,
  parse,
  readsDirectly,
  ruleAs,
  rulesFor,
  type FieldKind,
  type Locale,
  type Rule,
} from '@dellum/core';
import type { ChangeKindDto, KindTrial } from '@dellum/contract';
import { StructureService, feedsCatalogs, fieldWithId } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database, type Reader } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { SheetsStore } from '../structure/sheets.store.js';

const examplesShown = 5;

/** A distinct value of the field, how many entries hold it, and what it is in the new kind; undefined where it is none. */
interface Reading {
  readonly value: string;
  readonly entries: number;
  readonly becomes: string | undefined;
}

@Injectable()
export class FieldKindsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly counts: CountsStore,
    private readonly entries: EntriesStore,
    private readonly sheets: SheetsStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  async trial(caller: Caller, fieldId: string, { kind }: ChangeKindDto): Promise<KindTrial> {
    const build = await this.builds.now(caller.houseId);
    const field = fieldWithId(build, fieldId);
    mustFit(build, field, kind);
    const readings = await this.readings(this.database.kysely, build, field, kind);
    const unread = readings.filter(({ becomes }) => becomes === undefined).sort((a, b) => b.entries - a.entries);
    const sum = (some: readonly Reading[]) => some.reduce((total, { entries }) => total + entries, 0);
    return {
      held: sum(readings),
      unread: sum(unread),
      examples: unread.slice(0, examplesShown).map(({ value, entries }) => ({ value: format(field.kind, value, build.locale), entries })),
    };
  }

  async change(caller: Caller, fieldId: string, { kind }: ChangeKindDto): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const field = fieldWithId(build, fieldId);
      if (field.kind === kind) return;
      mustFit(build, field, kind);
      const place = { houseId: caller.houseId, registerId: field.registerId };
      const changed = (await this.readings(trx, build, field, kind)).filter(
        ({ value, becomes }) => becomes !== undefined && becomes !== value,
      );
      await this.entries.respell(
        trx,
        place,
        field.key,
        changed.map(({ value, becomes }) => ({ from: value, to: becomes! })),
      );
      await this.counts.write(
        trx,
        caller.houseId,
        changed.flatMap(({ value, becomes, entries }) => [
          { fieldId, value, entries: -entries },
          { fieldId, value: becomes!, entries },
        ]),
      );
      await this.sheets.changeKind(trx, caller.houseId, fieldId, kind);
      const rule = field.rule && ruleIn(field.rule, field.kind, kind, build.locale);
      if (rule) await this.sheets.setRule(trx, caller.houseId, fieldId, rule);
      await this.ledger.write(trx, caller.houseId, [
        {
          personId: caller.id,
          act: 'field.kind',
          registerId: field.registerId,
          field: field.key,
          detail: { from: field.kind, to: kind, values: changed.length },
        },
      ]);
      await this.changes.append(trx, caller.houseId, [{ audience: 'everyone', body: { kind: 'register', registerId: field.registerId } }]);
    });
  }

  private async readings(db: Reader, build: HouseBuild, field: FieldBuild, kind: FieldKind): Promise<Reading[]> {
    const counts = (await this.counts.ofFields(db, build.houseId, [field.id])).get(field.id) ?? new Map<string, number>();
    // Long texts are counted under a digest; none of them is anything but a text.
    return [...counts].map(([value, entries]) => ({
      value,
      entries,
      becomes: value.length > longestValue ? (kind === 'text' ? value : undefined) : valueIn(value, field.kind, kind, build.locale),
    }));
  }
}

/** What a stored value is in another kind: read as one would type what it shows. */
function valueIn(value: string, from: FieldKind, to: FieldKind, locale: Locale): string | undefined {
  if (isBlank(value)) return value;
  const parsed = parse(to, format(from, value, locale), locale, todayOf(new Date(), locale));
  return parsed.ok ? parsed.value : undefined;
}

/** The rule with what it says of values in the new kind. */
function ruleIn(rule: Rule, from: FieldKind, to: FieldKind, locale: Locale): Rule {
  const begins = rule.begins.with === 'value' ? valueIn(rule.begins.value, from, to, locale) : rule.begins.value;
  const base: Rule = { ...rule, begins: begins === undefined ? newRule('plain').begins : { ...rule.begins, value: begins } };
  const typed = ruleAs('typed', base);
  return typed ? { ...typed, values: typed.values.flatMap((value) => valueIn(value, from, to, locale) ?? []) } : base;
}

function mustFit(build: HouseBuild, field: FieldBuild, kind: FieldKind): void {
  const several = field.kind === 'several values' || kind === 'several values';
  if (several && field.kind !== 'text' && kind !== 'text')
    throw new ProblemError('kind-unfit', `${field.heading} can become text first, and ${kindLabel(kind)} afterwards.`);
  if (field.rule && !rulesFor(kind).includes(field.rule.kind))
    throw new ProblemError('kind-unfit', `The rule of ${field.heading} does not go with ${kindLabel(kind)}. Clear the rule first.`);
  if (build.registers.get(field.registerId)!.closing?.after?.field === field.key && kind !== 'date')
    throw new ProblemError(
      'kind-unfit',
      `When entries are closed goes by the day in ${field.heading}. Change that first, in the menu of the sheet.`,
    );
  const feeds =
    feedsCatalogs(build, field.registerId) ||
    build.ranges.some(
      (range) =>
        liesOver(range, field.registerId) &&
        [...build.catalogs.values()].some(({ definition }) => readsDirectly(definition, 'ranges', range.id)),
    );
  if (feeds)
    throw new ProblemError(
      'in-use',
      `Catalogs take values from ${field.heading}, and entries may hold them. Make a new list of the other kind and bind it instead.`,
      { users: [] },
    );
}
