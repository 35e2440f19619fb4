// A sheet made of a pasted table: its fields are proposed by what stands under each heading, and its rows become entries.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  cleanedCounts,
  forbiddenCharacter,
  newRule,
  profileOf,
  proposedFields,
  readCell,
  withoutApart,
  type Catalog,
  type Cells,
  type Locale,
} from '@dellum/core';
import type { FieldFromRowsDto, MakeFromRowsDto, ProposedFieldView, TextRowsDto } from '@dellum/contract';
import { ThreadsService } from '../threads/threads.service.js';
import { StructureService, apartIn } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { catalogOf } from '../catalogs/catalogs.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { CountsStore, deltasOf } from '../counts/counts.store.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { freeName, ProblemError } from '../problems/index.js';
import { fieldWidth, fittingFields } from '../sheets/sheets.service.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { GatherService } from './gather.service.js';

/** A field of the new register, with the catalog that it is bound to. */
type NewField = Omit<ReturnType<typeof fittingFields>[number], 'kind'> &
  Pick<FieldFromRowsDto, 'kind'> & { readonly id: string; readonly catalog: Catalog | undefined };

@Injectable()
export class FromRowsService {
  constructor(
    private readonly builds: StructureService,
    private readonly gathering: GatherService,
    private readonly compiled: CompiledCatalogsService,
    private readonly sheets: SheetsStore,
    private readonly entries: EntriesStore,
    private readonly counts: CountsStore,
    private readonly ledger: LedgerStore,
    private readonly threads: ThreadsService,
  ) {}

  /** The fields that a table could have, each with the catalog that has most of its values already. */
  async propose(caller: Caller, { rows }: TextRowsDto): Promise<ProposedFieldView[]> {
    const build = await this.builds.now(caller.houseId);
    return Promise.all(
      proposedFields(rows, build.locale).map(async ({ heading, kind, filled, unread, counts }): Promise<ProposedFieldView> => {
        const asText = kind === 'text' && filled > 0;
        const profile = asText
          ? profileOf(counts, withoutApart(await this.threads.lookAlikes(cleanedCounts(counts)), apartIn(build)))
          : undefined;
        const [standing] = profile ? await this.gathering.standing(build, profile) : [];
        return {
          heading,
          kind,
          filled,
          unread,
          distinct: counts.size,
          wantsToBeList: profile?.wantsToBeList ?? false,
          catalogId: standing?.catalogId ?? null,
        };
      }),
    );
  }

  /**
   * Makes the sheet with its register, its fields, their bindings and its entries. What a field does not read stays as it was written, and
   * is seen.
   */
  make(caller: Caller, dto: MakeFromRowsDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const { houseId } = caller;
      const today = todayOf(new Date(), build.locale);
      const title = freeName(
        dto.title,
        'title',
        build.sheets.map((sheet) => sheet.title),
      );
      const fields = await this.fieldsOf(trx, build, dto.fields);
      const [id, registerId] = [randomUUID(), randomUUID()];
      await this.sheets.addSheet(trx, houseId, { id, kind: 'entry', title, note: dto.note });
      await this.sheets.addRegister(trx, houseId, { id: registerId, sheetId: id, title });
      await this.sheets.addFields(
        trx,
        houseId,
        registerId,
        fields.map((field) => ({ id: field.id, key: field.key, heading: field.heading, kind: field.kind, width: fieldWidth })),
      );
      await this.sheets.setRules(
        trx,
        houseId,
        fields.flatMap(({ id: fieldId, catalog }) =>
          catalog ? [{ id: fieldId, rule: { ...newRule('catalog'), catalogId: catalog.id } }] : [],
        ),
      );
      const entries = dto.rows
        .map((row) => ({ id: randomUUID(), cells: cellsOf(row, fields, build.locale, today) }))
        .filter(({ cells }) => Object.keys(cells).length > 0);
      await this.entries.insert(trx, { houseId, registerId }, undefined, entries);
      const fieldIds = new Map(fields.map((field) => [field.key, field.id]));
      await this.counts.write(
        trx,
        houseId,
        entries.flatMap(({ cells }) => deltasOf({}, cells, fieldIds)),
      );
      await this.ledger.write(trx, houseId, [
        { personId: caller.id, act: 'sheet.made', registerId, detail: { id, title, rows: entries.length } },
        ...entries.map((entry) => ({ personId: caller.id, act: 'entry.inserted', registerId, entryId: entry.id, detail: entry.cells })),
      ]);
      return { id };
    });
  }

  private async fieldsOf(trx: Trx, build: HouseBuild, wanted: readonly FieldFromRowsDto[]): Promise<NewField[]> {
    const ids = wanted.flatMap(({ catalogId }) => catalogId ?? []);
    ids.forEach((id) => catalogOf(build, id));
    const catalogs = await this.compiled.some(trx, build, ids);
    return fittingFields(wanted).map((field, at) => ({ ...field, id: randomUUID(), catalog: catalogs.get(wanted[at]!.catalogId ?? '') }));
  }
}

/** What a row becomes in the fields. */
function cellsOf(row: readonly string[], fields: readonly NewField[], locale: Locale, today: string): Cells {
  return Object.fromEntries(
    fields.flatMap(({ key, heading, kind, catalog }, at) => {
      const text = row[at] ?? '';
      const character = forbiddenCharacter(text);
      if (character)
        throw new ProblemError(
          'value-refused',
          `A text under ${heading} holds the character ${character}, which cannot be stored. Take it out and paste again.`,
          { verdict: 'forbidden character', suggestions: [] },
        );
      const value = readCell({ kind, catalog }, text, locale, today);
      return value === '' ? [] : [[key, value]];
    }),
  );
}
