// Reads a file that came back and compares it three ways: as it went out, as it came back, as its entries are now. What is changed in it is
// judged as if it had been typed, and kept to be looked at; nothing of it is stored in entries.
import { Injectable, Logger } from '@nestjs/common';
import { bookOf, carried, columnsOfSheet, type ColumnWriting, type FileMark, type ShownColumn, type Verdict } from '@dellum/core';
import { mostRowsBack, sentKept, type EntryView, type FileColumn, type ReturnedCell } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, type Trx } from '../database/database.js';
import { ReturnedRowsStore, type NewReturnedRow } from '../entering/returnedRows.store.js';
import { EntriesStore } from '../entries/entries.store.js';
import { carriesOf, catalogsOf } from '../entries/judging.js';
import { JobsService } from '../jobs/jobs.service.js';
import { ProblemError } from '../problems/index.js';
import { todayOf } from '../structure/days.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import { feedsCatalogs, StructureService } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { Comparison, isId, namedIn, shapeOf, type Change, type WhereFrom } from './comparison.js';
import { noticedIn } from './noticed.js';
import { bytesOf, openFile, UnreadableFile, type OpenedFile, type ReadRow } from './reading/index.js';
import { ReturnedJudgingService } from './returnedJudging.service.js';
import { ReturnedStoringService } from './returnedStoring.service.js';
import { ReturnedStore, type ReturnedFile } from './returned.store.js';
import { SentStore, type SentFile } from './sent.store.js';
import { isSigned } from './signed.js';
import { rowsBelow, surveyed, type Survey } from './survey.js';

/** So many rows are compared at once. */
const batchSize = 1000;

/** Somebody else has begun to read the file since, an earlier one of its intake is read first, or it is gone. */
class Overtaken extends Error {}

@Injectable()
export class ComparingService {
  private readonly logger = new Logger('files that come back');

  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: ReturnedStore,
    private readonly rows: ReturnedRowsStore,
    private readonly sent: SentStore,
    private readonly entries: EntriesStore,
    private readonly catalogs: CompiledCatalogsService,
    private readonly judging: ReturnedJudgingService,
    private readonly storing: ReturnedStoringService,
    private readonly jobs: JobsService,
  ) {}

  async run(houseId: string, fileId: number): Promise<void> {
    const file = await this.store.one(this.database.kysely, houseId, fileId);
    if (!file || !(await this.readWhole(file)) || !file.intake) return;
    // The files of an intake are read one after another, since each must know what those before it have brought.
    await this.readNext(houseId, file.intake.id);
  }

  /** Has the first file of an intake read that waits for others. */
  async readNext(houseId: string, intakeId: string): Promise<void> {
    const [next] = await this.store.reading(this.database.kysely, houseId, intakeId);
    if (next !== undefined) await this.jobs.send(undefined, 'compare', [{ houseId, fileId: next }]);
  }

  /** False where somebody else reads it, or must read another one first. */
  private async readWhole(file: ReturnedFile): Promise<boolean> {
    const db = this.database.kysely;
    const { houseId } = file.caller;
    const run = await this.store.begin(db, houseId, file.id);
    if (run === undefined) return true;
    try {
      await this.read(file, run);
    } catch (error) {
      if (error instanceof Overtaken) return false;
      const said = error instanceof UnreadableFile || error instanceof ProblemError;
      if (!said)
        this.logger.error(
          `“${file.name}” could not be compared: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
        );
      const why = said
        ? error.message
        : 'Something went wrong here while the file was read. Bring it once more; if it happens again, tell whoever runs Dellum.';
      await this.store.end(db, houseId, file.id, run, { state: 'unreadable', why });
    }
    return true;
  }

  private async read(file: ReturnedFile, run: number): Promise<void> {
    const db = this.database.kysely;
    const { houseId } = file.caller;
    const opened = await openFile(bytesOf(await this.store.bytes(db, houseId, file.id)), file.name);
    const survey = await surveyed(opened);
    const build = await this.builds.now(houseId);
    const from = await this.whereFrom(build, file, survey);
    if (from.registerId === null) {
      await this.store.end(db, houseId, file.id, run, { state: 'unclear', said: from.said, headings: survey.headings, columns: null });
      return;
    }
    const register = await this.registerFor(build, file.caller, from.registerId);
    const { columns, isSure } = await this.columnsFor(build, register, file, survey, from);
    const found = { said: from.said, headings: survey.headings, columns, registerId: register.id, sentId: from.sent?.id ?? null };
    if (!isSure) {
      await this.store.end(db, houseId, file.id, run, { state: 'unclear', ...found });
      return;
    }
    const comparison = new Comparison(build, register, await this.columnsNow(build, register), from, columns, survey);
    await this.compareAll(file, run, opened, survey, comparison);
    const ready = { state: 'ready', ...found, said: [...from.said, ...comparison.said(), ...noticedIn(opened.noticed)] } as const;
    if (file.intake) {
      if (!(await this.storing.endByItself(file, (trx) => this.store.end(trx, houseId, file.id, run, ready)))) throw new Overtaken();
    } else await this.store.end(db, houseId, file.id, run, ready);
  }

  /** Of which sheet and moment the file is, by its mark or by what was said. */
  private async whereFrom(build: HouseBuild, file: ReturnedFile, { mark, entryColumn }: Survey): Promise<WhereFrom> {
    const unmarked = { registerId: file.registerId, sent: undefined, isSure: false };
    if (mark === undefined) return { ...unmarked, said: [] };
    const damaged = ['Its mark was changed, so it is not known what it held when it went out: every difference is asked about.'];
    if (mark === 'damaged') return { ...unmarked, said: damaged };
    if (mark.house !== file.houseKey)
      throw new UnreadableFile(`This file went out of another house, “${mark.house.slice(0, 60)}”. Bring it back there.`);
    const sent = await this.sentFile(build.houseId, mark);
    if (sent === undefined) {
      const said = `It is not known any more what the file held when it went out (that is kept for ${sentKept} days), so every difference is asked about.`;
      return { registerId: file.registerId ?? mark.register, sent: undefined, isSure: true, said: [said] };
    }
    if (!isSigned(mark, sent.key)) return { ...unmarked, said: damaged };
    const said =
      entryColumn === undefined
        ? [
            'The hidden column that says which row is which is gone. Rows that are as they went out were known again; all others are taken for new ones.',
          ]
        : [];
    return { registerId: sent.registerId, sent, isSure: true, said };
  }

  private async sentFile(houseId: string, { file }: FileMark): Promise<SentFile | undefined> {
    return isId(file) ? this.sent.one(this.database.kysely, houseId, file) : undefined;
  }

  private async registerFor(build: HouseBuild, caller: Caller, registerId: string): Promise<RegisterBuild> {
    if (!build.registers.has(registerId)) throw new UnreadableFile('The sheet that this file is of is not there any more.');
    const register = enteredRegister(build, registerId, caller);
    if (feedsCatalogs(build, registerId))
      throw new UnreadableFile(`${register.title} feeds catalogs, so files are not brought back into it. Change its entries on the sheet.`);
    return register;
  }

  private async columnsNow(build: HouseBuild, register: RegisterBuild): Promise<readonly ShownColumn[]> {
    return bookOf([register], {
      catalogs: await this.catalogs.some(this.database.kysely, build, catalogsOf(register.fields)),
      locale: build.locale,
      today: todayOf(new Date(), build.locale),
      labels: true,
    }).sheets[0]!.columns;
  }

  /** Which columns are which fields: as was said of this file or one of the same headings, or by the headings. */
  private async columnsFor(
    build: HouseBuild,
    register: RegisterBuild,
    file: ReturnedFile,
    { headings }: Survey,
    { sent, isSure }: WhereFrom,
  ): Promise<{ columns: readonly FileColumn[]; isSure: boolean }> {
    if (file.columns !== null) return { columns: file.columns, isSure: true };
    const remembered = await this.store.remembered(this.database.kysely, build.houseId, register.id, shapeOf(headings));
    const known = [
      ...register.fields.map(({ key, heading }) => ({
        key,
        headings: [heading, ...(sent?.columns ?? []).filter((column) => column.key === key).map((column) => column.heading)],
      })),
    ];
    const byHeading = columnsOfSheet(
      new Map(headings.map(({ at, heading }) => [at, heading])),
      known,
      new Map(remembered?.map(({ heading, field }) => [heading, field])),
    );
    const columns = [...byHeading].map(([at, field]) => ({ at, field }));
    // What comes by itself needs nobody to say what every heading says.
    const isSaid = file.intake !== null && columns.length > 0 && columns.every(({ field }) => field !== null);
    return { columns, isSure: isSure || remembered !== undefined || isSaid };
  }

  private async compareAll(file: ReturnedFile, run: number, opened: OpenedFile, survey: Survey, comparison: Comparison): Promise<void> {
    const { houseId } = file.caller;
    const { sent } = comparison.from;
    const isNext = await this.database.transaction(
      async (trx) => !file.intake || (await this.store.isNext(trx, houseId, file.id, file.intake)),
    );
    if (!isNext) throw new Overtaken();
    if (sent && survey.entryColumn === undefined) await this.knowAgain(houseId, sent, comparison);
    if (!sent) comparison.readAs(await told(opened, survey, comparison.writingsToTell()));
    await this.database.transaction((trx) => this.rows.clear(trx, houseId, file.id));
    let [batch, done]: [ReadRow[], number] = [[], 0];
    const compare = async () => {
      done += batch.length;
      await this.compareSome(file, run, done, batch, comparison);
      batch = [];
    };
    for await (const rows of rowsBelow(opened, survey)) {
      // One element of a file may stand for a million rows.
      for (const row of rows) {
        batch.push(row);
        if (done + batch.length > mostRowsBack)
          throw new UnreadableFile(`The file has more than ${mostRowsBack.toLocaleString('en-GB')} rows. Bring it in parts.`);
        if (batch.length >= batchSize) await compare();
      }
    }
    await compare();
    if (sent && survey.entryColumn !== undefined) await this.addMissing(file, run, done, sent, comparison);
  }

  /** Where no row says which it is: what went out is known by what it showed. */
  private async knowAgain(houseId: string, sent: SentFile, comparison: Comparison): Promise<void> {
    let after: string | undefined;
    do {
      const page = await this.sent.page(this.database.kysely, houseId, sent.id, after, batchSize);
      for (const { cells } of page) comparison.willKnow(cells);
      after = page.length < batchSize ? undefined : page.at(-1)?.id;
    } while (after !== undefined);
  }

  private compareSome(file: ReturnedFile, run: number, done: number, batch: readonly ReadRow[], comparison: Comparison): Promise<void> {
    const { caller } = file;
    const { build, register, from } = comparison;
    return this.database.transaction(async (trx) => {
      if (!(await this.store.progress(trx, caller.houseId, file.id, run, done))) throw new Overtaken();
      const all = comparison.rowsOf(batch);
      const rows = from.sent ? comparison.notAsSent(all, await this.sent.marks(trx, caller.houseId, from.sent.id, namedIn(all))) : all;
      const named = namedIn(rows);
      const standing = await this.entries.some(trx, { houseId: caller.houseId, registerId: register.id }, named);
      const carries = carriesOf(build, register);
      const now = new Map([...standing].map(([id, entry]) => [id, carried(entry.cells, carries)]));
      // Where it is not known what went out, what stands here is compared, and each difference asked about.
      const out = from.sent
        ? await this.sent.some(trx, caller.houseId, from.sent.id, named)
        : new Map(named.map((id) => [id, now.get(id) ?? {}]));
      const found = comparison.changesIn(rows, out, now);
      const marks = comparison.marksToAsk(found);
      comparison.know(marks, await this.store.broughtBefore(trx, file, register.id, from.sent?.id ?? null, marks));
      const changes = comparison.withoutThere(found);
      const judged = await this.judge(trx, caller, comparison, changes, standing);
      await this.rows.add(trx, caller.houseId, file.id, comparison.next(judged.length), judged);
    });
  }

  /** What is changed, with what would become of it; what would change nothing is left out. */
  private async judge(
    trx: Trx,
    caller: Caller,
    comparison: Comparison,
    changes: readonly Change[],
    standing: ReadonlyMap<string, EntryView>,
  ): Promise<NewReturnedRow[]> {
    const rows = changes.map((change) => ({ ...change, cells: change.cells.map((cell) => comparison.returnedCell(cell)) }));
    const judged = await this.judging.judge(trx, caller, comparison, rows, standing);
    return judged.flatMap(({ verdicts, after: _after, ...row }): NewReturnedRow[] => {
      const cells = row.cells.filter((cell) => !isNothingNew(row.what, cell, verdicts.get(cell.field)));
      return row.what === 'changed' && cells.length === 0 ? [] : [{ ...row, cells }];
    });
  }

  /** The entries whose row did not come back. */
  private async addMissing(file: ReturnedFile, run: number, done: number, sent: SentFile, comparison: Comparison): Promise<void> {
    const { houseId } = file.caller;
    const { register, build } = comparison;
    const ids = await this.sent.notAmong(this.database.kysely, houseId, sent.id, register.id, [...comparison.seen]);
    for (let at = 0; at < ids.length; at += batchSize) {
      const some = ids.slice(at, at + batchSize);
      await this.database.transaction(async (trx) => {
        if (!(await this.store.progress(trx, houseId, file.id, run, done))) throw new Overtaken();
        const entries = await this.entries.some(trx, { houseId, registerId: register.id }, some);
        const rows = some.flatMap((entry): NewReturnedRow[] => {
          const held = entries.get(entry);
          const about = held && comparison.aboutEntry(carried(held.cells, carriesOf(build, register)));
          return about === undefined ? [] : [{ row: null, what: 'missing', entry, about, cells: [], follows: [] }];
        });
        await this.rows.add(trx, houseId, file.id, comparison.next(rows.length), rows);
      });
    }
  }
}

/** Looks at all rows of a file that did not go out here, to tell how its columns write numbers and days. */
async function told(
  opened: OpenedFile,
  survey: Survey,
  writings: ReadonlyMap<number, ColumnWriting>,
): Promise<ReadonlyMap<number, ColumnWriting>> {
  let looked = 0;
  if (writings.size === 0) return writings;
  for await (const rows of rowsBelow(opened, survey)) {
    for (const { cells } of rows)
      for (const [at, writing] of writings) {
        const held = cells.get(at);
        if (held) writing.see(held);
      }
    looked += rows.length;
    if (looked > mostRowsBack) break;
  }
  return writings;
}

/** Another way of writing what stands here. */
const isNothingNew = (what: Change['what'], { now }: ReturnedCell, verdict: Verdict | undefined): boolean =>
  what === 'changed' && verdict?.verdict === 'taken' && verdict.value === now && !verdict.fills;
