// Downloads: what is in a file is settled when it is asked for; a job writes it batch by batch and saves its place, on any server.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import { bookOf, carried, fieldsInOrder, format, markedText, markOf, writtenInRow, type Book, type Column } from '@dellum/core';
import { mayDesign, mostRowsBack, type DownloadDto, type DownloadFormat, type DownloadView, type SentColumn } from '@dellum/contract';
import { ArrangementsService } from '../arrangements/arrangements.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, type Trx } from '../database/database.js';
import { Standby } from '../database/standby.js';
import { EntriesStore } from '../entries/entries.store.js';
import { carriesOf, catalogsOf } from '../entries/judging.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { todayOf } from '../structure/days.js';
import { downloadedRegister, downloads } from '../structure/sheetAccess.js';
import { feedsCatalogs, StructureService } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SeekingService } from '../records/seeking.service.js';
import { DownloadsStore, type DownloadUnderWay } from './downloads.store.js';
import { SentStore } from './sent.store.js';
import { markOfText, signed } from './signed.js';
import { csvWriter, jsonLinesWriter } from './textWriters.js';
import { tablesWriter } from './tablesWriter.js';
import { mostRows, type About } from './bookSheets.js';
import { openDocumentType, OpenDocumentParts } from './openDocument.js';
import { workbookType, WorkbookParts } from './workbook.js';
import { openDocumentWriter, workbookWriter } from './workbookWriter.js';
import type { FileKind, FileWriter } from './writer.js';

/** So many entries are written at once. */
const batchSize = 2000;
/** So many ids are read ahead: reading any of them costs as much as reading all. */
const idsAhead = 20_000;
/** So long a search for what is in a file may take; milliseconds. */
const longest = 20_000;
/** So many files of one person are kept; an older one makes room. */
const mostKept = 20;

export const fileKinds: { readonly [Format in DownloadFormat]: FileKind } = {
  workbook: { type: workbookType, ending: 'xlsx' },
  opendocument: { type: openDocumentType, ending: 'ods' },
  csv: { type: 'text/csv; charset=utf-8', ending: 'csv' },
  tables: { type: 'application/zip', ending: 'zip' },
  'json lines': { type: 'application/jsonl; charset=utf-8', ending: 'jsonl' },
};

/** Where a file stands: how it is laid out, and what its writer needs to go on. */
interface Written {
  readonly layout: string;
  readonly state: unknown;
  /** So many entries are written. */
  readonly rows: number;
}

@Injectable()
export class DownloadsService {
  constructor(
    private readonly database: Database,
    private readonly standby: Standby,
    private readonly builds: StructureService,
    private readonly store: DownloadsStore,
    private readonly sent: SentStore,
    private readonly entries: EntriesStore,
    private readonly arrangements: ArrangementsService,
    private readonly seeking: SeekingService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly ledger: LedgerStore,
    private readonly jobs: JobsService,
  ) {}

  /** Begins to write a file of the entries that the person sees now. */
  async begin(caller: Caller, registerId: string, wanted: DownloadDto): Promise<DownloadView> {
    const id = await this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, caller.houseId);
      const register = downloadedRegister(build, registerId, caller);
      const entries = await this.entriesWanted(trx, caller, build, register, wanted);
      const fields = wanted.arranged ? await this.arrangedFields(caller, register) : register.fields.map(({ key }) => key);
      const name = `${register.title}.${fileKinds[wanted.format].ending}`;
      if (wanted.comesBack) mayComeBack(build, register, wanted);
      const sentId = wanted.comesBack ? await this.sent.add(trx, caller.houseId, registerId) : null;
      const added = await this.store.add(trx, caller.houseId, { personId: caller.id, registerId, name, wanted, fields, entries, sentId });
      if (wanted.comesBack && added.total > mostRowsBack)
        throw new ProblemError(
          'too-large',
          `A file that comes back holds ${mostRowsBack.toLocaleString('en-GB')} entries at most, and these are ${added.total.toLocaleString('en-GB')}. Show fewer of them.`,
        );
      if ((wanted.format === 'workbook' || wanted.format === 'opendocument') && added.total > mostRows)
        throw new ProblemError(
          'too-large',
          `A sheet of a workbook holds ${mostRows.toLocaleString('en-GB')} entries, and these are ${added.total.toLocaleString('en-GB')}. Show fewer of them, or choose another format.`,
        );
      await this.store.removeBeyond(trx, caller.houseId, caller.id, mostKept);
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'sheet.downloaded', registerId, detail: { format: wanted.format, entries: added.total } },
      ]);
      await this.jobs.send(trx, 'download', [{ houseId: caller.houseId, downloadId: added.id }]);
      return added.id;
    });
    return this.view(caller, id);
  }

  private async entriesWanted(trx: Trx, caller: Caller, build: HouseBuild, register: RegisterBuild, { arranged, found }: DownloadDto) {
    if (found) {
      // Looking through a million entries for what is in none of them is not waited for.
      await sql`select set_config('statement_timeout', ${String(longest)}, true)`.execute(trx);
      return this.seeking.allIds(trx, build, register, found);
    }
    return arranged
      ? this.arrangements.allIds(trx, caller, build, register)
      : this.entries.allIds({ houseId: caller.houseId, registerId: register.id });
  }

  private async arrangedFields(caller: Caller, register: RegisterBuild): Promise<string[]> {
    const { arrangement } = await this.arrangements.of(caller, register.id);
    return fieldsInOrder(register.fields, arrangement).flatMap(({ field, hidden }) => (hidden ? [] : [field.key]));
  }

  /** One's own that one may still have; to an administrator, those of the house. */
  async list(caller: Caller): Promise<DownloadView[]> {
    if (mayDesign(caller.role)) return this.store.list(this.database.kysely, caller.houseId);
    const build = await this.builds.now(caller.houseId);
    const own = await this.store.list(this.database.kysely, caller.houseId, caller.id);
    return own.filter(({ registerId }) => downloads(build, registerId, caller));
  }

  async view(caller: Caller, id: number): Promise<DownloadView> {
    return (await this.mine(caller, id)).view;
  }

  /** Stops it where it is under way; its file is gone. */
  async remove(caller: Caller, id: number): Promise<void> {
    await this.mine(caller, id);
    await this.store.remove(this.database.kysely, caller.houseId, id);
  }

  /** The file, part by part. Whoever may not look at the sheet any more, or not download it, gets nothing of it. */
  async file(caller: Caller, id: number): Promise<{ view: DownloadView; parts: AsyncIterable<Buffer> }> {
    const { view, parts } = await this.mine(caller, id);
    downloadedRegister(await this.builds.now(caller.houseId), view.registerId, caller);
    if (view.state !== 'done') throw new ProblemError('not-found', 'This file is not written yet. Wait until it is done.');
    const { store, standby } = this;
    async function* all() {
      for (let part = 0; part < parts; part += 1) {
        const bytes = await standby.read(caller.houseId, (db) => store.part(db, caller.houseId, id, part));
        // Half a file is never taken for a whole one: the answer breaks off.
        if (!bytes) throw new Error('The file was removed while it was read.');
        yield bytes;
      }
    }
    return { view, parts: all() };
  }

  private async mine(caller: Caller, id: number) {
    const found = await this.store.one(this.database.kysely, caller.houseId, id);
    if (!found || (found.personId !== caller.id && !mayDesign(caller.role))) throw notFound('This download');
    return found;
  }

  /** Writes on until the end; false when it may not go on before that, and what is left is another job's. */
  async run(houseId: string, id: number, mayGoOn: () => boolean): Promise<boolean> {
    let laid: LaidOut | undefined;
    do {
      laid = await this.step(houseId, id, laid);
      if (!laid) return true;
    } while (mayGoOn());
    return false;
  }

  /** One batch in one transaction; undefined when there is no more to do. */
  private step(houseId: string, id: number, known: LaidOut | undefined): Promise<LaidOut | undefined> {
    return this.database.transaction(async (trx) => {
      const download = await this.store.claim(trx, houseId, id);
      if (!download) return undefined;
      const build = await this.builds.at(trx, houseId);
      const laid = known?.build === build ? known : await this.layOut(trx, build, download);
      const { register, writer, layout } = laid;
      const before = download.written as Written | null;
      if (!before) {
        const { bytes, state } = await writer.begin();
        if (download.sentId !== null) await this.sent.begin(trx, houseId, download.sentId, laid.shown);
        await this.store.keep(trx, houseId, id, 0, {
          bytes,
          written: { layout, state, rows: 0 } satisfies Written,
          done: 0,
          finished: false,
        });
        return laid;
      }
      // The end must point at what the beginning has: where a field or a rule was changed since, it is written anew.
      if (before.layout !== layout) {
        await this.store.beginAgain(trx, houseId, id);
        return laid;
      }
      if (!laid.ahead || download.done < laid.ahead.from || download.done + batchSize > laid.ahead.from + laid.ahead.ids.length)
        laid.ahead = { from: download.done, ids: await this.store.entriesOf(trx, houseId, id, download.done, idsAhead) };
      const at = download.done - laid.ahead.from;
      const ids = laid.ahead.ids.slice(at, at + batchSize);
      const held = await this.standby.read(houseId, (db) => this.entries.some(db, { houseId, registerId: register.id }, ids), trx);
      const carries = carriesOf(build, register);
      // Entries that were deleted since leave no gap.
      const rows = ids.flatMap((entryId) => {
        const entry = held.get(entryId);
        return entry ? [{ ...entry, cells: carried(entry.cells, carries) }] : [];
      });
      if (download.sentId !== null) {
        const marked = rows.map((row) => ({ ...row, mark: markOfText(writtenInRow(laid.columns, row.cells, build.locale)) }));
        await this.sent.addEntries(trx, houseId, download.sentId, marked);
      }
      const middle = await writer.rows(rows, before.rows, before.state);
      const done = download.done + ids.length;
      const finished = done >= download.total;
      const last = finished ? await writer.end(middle.state, before.rows + rows.length) : undefined;
      await this.store.keep(trx, houseId, id, download.parts, {
        bytes: last ? Buffer.concat([middle.bytes, last.bytes]) : middle.bytes,
        written: { layout, state: (last ?? middle).state, rows: before.rows + rows.length } satisfies Written,
        done,
        finished,
      });
      return finished ? undefined : laid;
    });
  }

  private async layOut(trx: Trx, build: HouseBuild, download: DownloadUnderWay): Promise<LaidOut> {
    const { registerId, fields, wanted, at } = download;
    const register = build.registers.get(registerId)!;
    // Fields that were deleted since are passed over.
    const shown = fields.flatMap((key) => register.fields.find((field) => field.key === key) ?? []);
    const mark = await this.markOf(trx, build, download);
    const book = bookOf([{ title: register.title, fields: shown, mark }], {
      catalogs: await this.catalogs.some(trx, build, catalogsOf(shown)),
      locale: build.locale,
      today: todayOf(at, build.locale),
      labels: wanted.labels,
    });
    return {
      build,
      register,
      columns: book.sheets[0]!.columns,
      shown: shownIn(book),
      writer: writerOf(book, build, download),
      layout: layoutOf(book),
    };
  }

  /** The mark of a file that is to come back. */
  private async markOf(trx: Trx, { houseId }: HouseBuild, { sentId, houseKey }: DownloadUnderWay): Promise<string | undefined> {
    const sent = sentId === null ? undefined : await this.sent.one(trx, houseId, sentId);
    return sent && markedText(signed(sent, houseKey));
  }
}

/** What comes back is entered: not into sheets that feed catalogs, where what depends on the entries is asked about. */
function mayComeBack(build: HouseBuild, register: RegisterBuild, { format }: DownloadDto): void {
  if (feedsCatalogs(build, register.id) || register.source)
    throw new ProblemError(
      'not-allowed',
      `${register.title} feeds catalogs, so files of it do not come back. Change its entries on the sheet.`,
    );
  if (format !== 'workbook' && format !== 'opendocument')
    throw new ProblemError('not-valid', 'Only workbooks can be filled in and brought back. Choose one of their formats.', {
      faults: { format: 'Choose a workbook.' },
    });
}

/** How a file is laid out by one state of the build; made once a state, since its lists may be long. */
interface LaidOut {
  readonly build: HouseBuild;
  readonly register: RegisterBuild;
  readonly columns: readonly Column[];
  /** What its columns show. */
  readonly shown: readonly SentColumn[];
  readonly writer: FileWriter;
  readonly layout: string;
  /** The ids of the entries from one on, in order. */
  ahead?: { readonly from: number; readonly ids: readonly string[] };
}

const shownIn = ({ sheets }: Book): SentColumn[] =>
  sheets[0]!.columns.map(({ key, heading, kind, labels, under }) => ({ key, heading, kind, labels: labels && [...labels], under }));

const layoutOf = ({ sheets, lists }: Book): string =>
  markOf([
    sheets.map(({ title, columns }) => [title, columns.map(({ labels: _labels, ...column }) => column)]),
    lists.map(({ name, levels, rows }) => [name, levels, rows.length]),
  ]);

function writerOf(book: Book, { locale }: HouseBuild, { wanted, caller, at, house }: DownloadUnderWay): FileWriter {
  const { columns, title } = book.sheets[0]!;
  const about: About = { house, title, at: format('date', todayOf(at, locale), locale), by: caller.name };
  switch (wanted.format) {
    case 'csv':
      return csvWriter(columns, wanted.guarded) as FileWriter;
    case 'tables':
      return tablesWriter(book, locale.language) as FileWriter;
    case 'json lines':
      return jsonLinesWriter(columns) as FileWriter;
    case 'workbook':
      return workbookWriter(new WorkbookParts(book, locale, about)) as FileWriter;
    case 'opendocument':
      return openDocumentWriter(new OpenDocumentParts(book, locale, about)) as FileWriter;
  }
}
