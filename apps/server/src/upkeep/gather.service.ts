// Making a column a list, in one act: its spellings are gathered into a growing list with a catalog, the entries follow, the
// field is bound. Every other spelling is remembered as another name.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { clean, cleanedCounts, matchKey, nameFault, newRule, ofRanges, profileOf, sourceTextFault, type CatalogRule, type ColumnProfile, type SourceRange } from '@dellum/core';
import type { GatherDto } from '@dellum/contract';
import { BuildService, entryFieldWithId } from '../build/build.service.js';
import type { FieldBuild, HouseBuild } from '../build/build.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CatalogsService } from '../catalogs/catalogs.service.js';
import { CatalogsStore } from '../catalogs/catalogs.store.js';
import { Counts, deltasOf } from '../counts/counts.js';
import { Database, type Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { Ledger } from '../ledger/ledger.js';
import type { Caller } from '../people/guard.js';
import { ProblemError } from '../problems/index.js';
import { SheetsStore } from '../sheets/sheets.store.js';
import { SourcesStore } from '../sources/sources.store.js';
import { lookAlikesOf } from './lookAlikesOf.js';

const gatheredSheet = 'Gathered lists';
const listWidth = 160;
/** So many spellings may follow at once; each is a carry of its own. */
const mostCarries = 500;

/** What is to be gathered, cleaned and checked. */
interface Wanted {
  readonly values: readonly string[];
  /** Spellings that entries hold, and what each becomes. */
  readonly mapping: readonly { readonly from: string; readonly to: string }[];
}

@Injectable()
export class GatherService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly counts: Counts,
    private readonly sheets: SheetsStore,
    private readonly entries: EntriesStore,
    private readonly sources: SourcesStore,
    private readonly catalogs: CatalogsService,
    private readonly catalogsStore: CatalogsStore,
    private readonly carries: CarriesService,
    private readonly ledger: Ledger,
  ) {}

  /** What the column holds, and the list it could be. */
  async profile(caller: Caller, fieldId: string): Promise<ColumnProfile> {
    const build = await this.builds.now(caller.houseId);
    const field = gatherable(build, fieldId);
    const counts = (await this.counts.ofFields(this.database.kysely, caller.houseId, [field.id])).get(field.id) ?? new Map<string, number>();
    return profileOf(counts, await lookAlikesOf(cleanedCounts(counts)));
  }

  gather(caller: Caller, fieldId: string, dto: GatherDto): Promise<{ catalogId: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const field = gatherable(build, fieldId);
      const wanted = wantedBy(dto);
      const title = clean(dto.title);
      const fault = nameFault(title, build.ranges.map(({ name }) => name));
      if (fault) throw new ProblemError(fault.code === 'name taken' ? 'name-taken' : 'name-unfit', fault.message, { faults: { title: fault.message } });
      const range = await this.listOf(trx, caller, build, title, wanted.values);
      const catalogId = await this.catalogs.makeWithin(trx, caller, build, { title, note: `Gathered from ${field.heading}.`, definition: ofRanges([range.id]) });
      await this.catalogsStore.remember(trx, caller.houseId, catalogId, wanted.mapping.filter(({ from, to }) => matchKey(from) !== matchKey(to)));
      const rule: CatalogRule = { ...(newRule('catalog') as CatalogRule), catalogId };
      await this.sheets.setRule(trx, caller.houseId, field.id, rule);
      await this.carries.begin(trx, caller.houseId, field, wanted.mapping);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'column.gathered', registerId: field.registerId, field: field.key, detail: { catalogId, values: wanted.values.length, mapping: wanted.mapping } }]);
      return { catalogId };
    });
  }

  /** A growing list of the values on the sheet of gathered lists. */
  private async listOf(trx: Trx, caller: Caller, build: HouseBuild, title: string, values: readonly string[]): Promise<SourceRange> {
    const { houseId } = caller;
    const sheet = build.sheets.find((known) => known.kind === 'source' && known.title === gatheredSheet);
    const sheetId = sheet?.id ?? randomUUID();
    if (!sheet) await this.sheets.addSheet(trx, houseId, { id: sheetId, kind: 'source', title: gatheredSheet, note: 'Lists that were made of columns.' });
    const register = randomUUID();
    const field = randomUUID();
    await this.sheets.addRegister(trx, houseId, { id: register, sheetId, title });
    await this.sheets.addFields(trx, houseId, register, [{ id: field, key: 'value', heading: title, kind: 'text', width: listWidth }]);
    const rows = values.map((value) => ({ id: randomUUID(), cells: { value } }));
    await this.entries.insert(trx, { houseId, registerId: register }, undefined, rows);
    await this.counts.write(trx, houseId, rows.flatMap(({ cells }) => deltasOf({}, cells, new Map([['value', field]]))));
    const range: SourceRange = { id: randomUUID(), name: title, shape: 'list', inherits: false, stretches: [{ registerId: register, fields: ['value'], start: { at: 'top' }, end: { ends: 'last' } }] };
    await this.sources.addRanges(trx, houseId, [range]);
    return range;
  }
}

function gatherable(build: HouseBuild, fieldId: string): FieldBuild {
  const field = entryFieldWithId(build, fieldId);
  if (field.kind !== 'text') throw new ProblemError('kind-unfit', `${field.heading} does not hold text. Choose a text field.`);
  if (field.rule?.kind === 'catalog') throw new ProblemError('in-use', `${field.heading} takes its values from a catalog already. Clear its rule first.`, { users: [] });
  return field;
}

/** The values each once, and a mapping in which nothing leads two ways. */
function wantedBy(dto: GatherDto): Wanted {
  const values = dto.values.map(({ value }) => clean(value));
  const faults = (message: string) => new ProblemError('not-valid', message, { faults: { values: message } });
  for (const value of values) {
    const fault = value === '' ? { message: 'A value of the list is blank. Take it out, or write it.' } : sourceTextFault(value);
    if (fault) throw faults(fault.message);
  }
  const twice = values.find((value, at) => values.indexOf(value) !== at);
  if (twice !== undefined) throw faults(`“${twice}” stands twice in the list. Put its spellings together.`);
  const known = new Set(values);
  const mapping = dto.values.flatMap(({ spellings }, at) => spellings.map((from) => ({ from, to: values[at]! }))).filter(({ from, to }) => from !== to);
  const seen = new Set<string>();
  for (const { from, to } of mapping) {
    if (known.has(from)) throw faults(`“${from}” is to become “${to}”, and is a value itself. Decide for one of them.`);
    if (seen.has(from)) throw faults(`“${from}” is a spelling of two values. Decide for one of them.`);
    seen.add(from);
  }
  if (mapping.length > mostCarries) throw faults(`${mapping.length} spellings are to follow; at most ${mostCarries} can at once.`);
  return { values, mapping };
}
