// Acts on blocks that reach further than what is on screen: cleared, filled down, replaced, pasted, deleted. One act is
// one job of batches, each a transaction that saves its place; it is taken back as one act, by what the ledger says of it.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  carried,
  givenIn,
  bothOutcomes,
  noOutcome,
  givenBy,
  type Cells,
  type BlockAct,
  type ActField,
  type ActOutcome,
  type Edit,
  type WritingAct,
} from '@dellum/core';
import { mostCells, type BlockDto, type EntryActDto, type EntryActView, type EntryView } from '@dellum/contract';
import { ArrangementsService } from '../arrangements/arrangements.service.js';
import { StructureService, feedsCatalogs, fieldWithKey } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { Database, holdBuild, type Trx } from '../database/database.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { BlockWritingService, type ActAt } from './blockWriting.service.js';
import { BringingService } from './bringing.service.js';
import { EntriesStore } from '../entries/entries.store.js';
import { EntryActsStore, type EntryActRow } from './entryActs.store.js';
import { EntryWriterService, type Writer } from './entryWriter.service.js';
import { carriesOf } from '../entries/judging.js';
import { NewValuesService } from './newValues.service.js';
import { PlacesStore } from '../entries/places.store.js';
import { RepeatsService } from './repeats.service.js';
import { ofFields, seenAs, seenIn, takenBack } from './takenBack.js';

const batchSize = 5000;
/** So many entries of a batch are judged while those before them are being stored. */
const partSize = 1000;

@Injectable()
export class EntryActsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: EntryActsStore,
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly arrangements: ArrangementsService,
    private readonly blocks: BlockWritingService,
    private readonly bringing: BringingService,
    private readonly writing: EntryWriterService,
    private readonly repeats: RepeatsService,
    private readonly ledger: LedgerStore,
    private readonly jobs: JobsService,
    private readonly newValues: NewValuesService,
  ) {}

  /** Begins an act: what it works on is settled now, the rest is done by a job. */
  async begin(caller: Caller, registerId: string, dto: EntryActDto): Promise<EntryActView> {
    const id = await this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = enteredRegister(build, registerId, caller);
      if (feedsCatalogs(build, registerId))
        throw new ProblemError(
          'in-use',
          'These entries are values elsewhere. Change them in parts of at most 20,000 cells, so that what depends on them is asked about.',
          { users: [] },
        );
      const act =
        dto.does === 'back' ? await this.backOf(trx, caller, register, dto.of) : await this.actOn(trx, caller, build, register, dto);
      const made = (act.what.does === 'paste' ? act.what.texts.length : 0) - act.entries.length;
      const fresh = Array.from({ length: Math.max(0, made) }, () => randomUUID());
      const entries = [...act.entries, ...fresh];
      if (entries.length === 0) throw new ProblemError('no-cells', 'There is nothing here to do this to. Choose other rows.');
      const actId = await this.store.add(trx, caller.houseId, { ...act, personId: caller.id, registerId, entries });
      if (fresh.length > 0) await this.blocks.addBelow({ trx, caller, build, register, actId }, fresh);
      await this.jobs.send(trx, 'entryAct', [{ houseId: caller.houseId, actId }]);
      return actId;
    });
    return this.view(caller, id);
  }

  async view(caller: Caller, id: number): Promise<EntryActView> {
    const view = await this.store.view(this.database.kysely, caller.houseId, caller.id, id);
    if (!view) throw notFound('This act');
    return view;
  }

  /** Keeps an act that other jobs do. */
  addDone(trx: Trx, houseId: string, personId: string, registerId: string, what: BlockAct): Promise<number> {
    return this.store.addDone(trx, houseId, personId, registerId, what);
  }

  /** Begins to store, within a transaction, what some entries are in a file that came back. Those that are not there are new. */
  async bringWithin(trx: Trx, caller: Caller, registerId: string, file: number, entries: readonly string[]): Promise<number> {
    const actId = await this.store.add(trx, caller.houseId, {
      what: { does: 'bring', file },
      fields: [],
      entries,
      personId: caller.id,
      registerId,
    });
    await this.jobs.send(trx, 'entryAct', [{ houseId: caller.houseId, actId }]);
    return actId;
  }

  /** Begins to take back, within a transaction, what an act did to entries, whoever did it; nothing where it touched none. */
  async backWithin(trx: Trx, caller: Caller, registerId: string, of: number): Promise<void> {
    const entries = await this.store.entriesOf(trx, caller.houseId, of);
    if (entries.length === 0) return;
    const actId = await this.store.add(trx, caller.houseId, {
      what: { does: 'back', of },
      fields: [],
      entries,
      personId: caller.id,
      registerId,
    });
    await this.jobs.send(trx, 'entryAct', [{ houseId: caller.houseId, actId }]);
  }

  private async backOf(trx: Trx, caller: Caller, register: RegisterBuild, of: number | undefined): Promise<Settled> {
    const entries = of === undefined ? undefined : await this.store.touched(trx, caller.houseId, caller.id, register.id, of);
    if (!entries) throw notFound('An act of yours on this sheet that is done');
    return { what: { does: 'back', of: of! }, fields: [], entries };
  }

  private async actOn(trx: Trx, caller: Caller, build: HouseBuild, register: RegisterBuild, dto: EntryActDto): Promise<Settled> {
    const fields = (dto.block?.fields ?? dto.fields ?? []).map((key) => fieldWithKey(register, key));
    const pasted = dto.does === 'paste' ? (dto.texts?.length ?? 0) : undefined;
    const block = dto.block ?? { fields: [], arranged: false };
    const entries = dto.below ? [] : await this.idsOf(trx, caller, build, register, block, pasted);
    const rows = pasted ?? entries.length;
    if (rows * Math.max(1, fields.length) > mostCells)
      throw new ProblemError(
        'too-large',
        `The block has ${(rows * fields.length).toLocaleString('en-GB')} cells; one act reaches ${mostCells.toLocaleString('en-GB')}. Do it in parts.`,
      );
    return { what: await this.whatOf(trx, caller, build, register, dto, fields, entries), fields: fields.map(({ key }) => key), entries };
  }

  private async whatOf(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    dto: EntryActDto,
    fields: readonly FieldBuild[],
    entries: readonly string[],
  ): Promise<BlockAct> {
    switch (dto.does) {
      case 'replace': {
        const words = 'Type what is to be found.';
        if (!dto.search) throw new ProblemError('not-valid', words, { faults: { search: words } });
        const { find, whole, exact } = dto.search;
        return { does: 'replace', find, whole, exact, by: dto.by ?? '' };
      }
      case 'fill': {
        const how = dto.how ?? 'same';
        return { does: 'fill', how, given: await this.givenOf(trx, caller, build, register, fields, entries, how) };
      }
      case 'paste':
        return { does: 'paste', texts: dto.texts ?? [] };
      case 'delete':
        return { does: 'delete' };
      default:
        return { does: 'clear' };
    }
  }

  /** What a block reaches; `most`: no more than its first so many entries. */
  private async idsOf(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    block: BlockDto,
    most: number | undefined,
  ): Promise<string[]> {
    const ids = block.arranged
      ? await this.arrangements.between(trx, caller, build, register, block.first, block.last, most)
      : await this.entries.between(trx, { houseId: caller.houseId, registerId: register.id }, block.first, block.last, most);
    if (!ids || (most !== 0 && ids.length === 0 && (block.first ?? block.last) !== undefined)) throw notFound('An end of the block');
    return ids;
  }

  /** What the top of the block holds, from which the rest is filled. */
  private async givenOf(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    fields: readonly FieldBuild[],
    ids: readonly string[],
    how: 'same' | 'series',
  ): Promise<Record<string, readonly string[]>> {
    const carries = carriesOf(build, register);
    const top = await this.entries.some(
      trx,
      { houseId: caller.houseId, registerId: register.id },
      ids.slice(0, how === 'same' ? 1 : mostGiven),
    );
    const cells = ids.slice(0, top.size).flatMap((id) => (top.has(id) ? [carried(top.get(id)!.cells, carries)] : []));
    return Object.fromEntries(
      fields.map(({ key }) => [
        key,
        givenIn(
          how,
          cells.map((held) => held[key] ?? ''),
        ),
      ]),
    );
  }

  /**
   * Works on an act batch by batch, and before it on those on its register that came first and are not done. False when it may not go on
   * before the end; what is left is another job's.
   */
  async run(houseId: string, actId: number, mayGoOn: () => boolean): Promise<boolean> {
    let done = 0;
    for (;;) {
      const next = await this.store.oldestUntil(this.database.kysely, houseId, actId, done);
      if (next === undefined) return true;
      if (!(await this.runOne(houseId, next, mayGoOn))) return false;
      done = next;
    }
  }

  private async runOne(houseId: string, actId: number, mayGoOn: () => boolean): Promise<boolean> {
    const act = await this.store.read(this.database.kysely, houseId, actId);
    if (!act) return true;
    const { caller } = act;
    while (await this.newValues.around(caller, () => this.batch(caller, actId, act))) if (!mayGoOn()) return false;
    return true;
  }

  /** One batch in one transaction; true when there is more to do. */
  private batch(caller: Writer, actId: number, act: EntryActRow): Promise<boolean> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const claimed = await this.store.claim(trx, caller.houseId, actId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = build.registers.get(act.registerId);
      if (!claimed || !register) return false;
      const ids = act.entries.slice(claimed.done, claimed.done + batchSize);
      const part = await this.doPart({ trx, caller, build, register, actId }, act, ids, claimed.done);
      const done = claimed.done + ids.length;
      await this.store.progress(trx, caller.houseId, actId, claimed.outcome, part, done, done >= act.entries.length);
      return done < act.entries.length;
    });
  }

  private async doPart(at: ActAt, act: EntryActRow, ids: readonly string[], from: number): Promise<ActOutcome> {
    const { trx, caller, build, register, actId } = at;
    const place = { houseId: caller.houseId, registerId: register.id };
    const { what } = act;
    switch (what.does) {
      // Lists are made by carries; their act is never under way here.
      case 'gather':
        return noOutcome;
      case 'delete': {
        await this.places.lockOrder(trx, place);
        const carries = carriesOf(build, register);
        const open = await this.blocks.openAmong(at, seenAs(await this.entries.lock(trx, place, ids), carries));
        const taken = await this.writing.remove(trx, caller, register, open, carries, actId);
        return { ...noOutcome, taken, passedOver: ids.length - taken };
      }
      case 'back':
        return this.back(at, what.of, ids);
      case 'bring':
        return this.bringing.part(at, what.file, ids);
      default: {
        // Fields that were deleted since are passed over.
        const fields = act.fields.flatMap((key) => register.fields.find((field) => field.key === key) ?? []);
        return this.write(at, { what, fields, total: act.entries.length }, ids, from);
      }
    }
  }

  /** While the database stores one part, the next one is judged. */
  private async write(at: ActAt, block: WrittenBlock, ids: readonly string[], from: number): Promise<ActOutcome> {
    const { trx, caller, register } = at;
    const locked = await this.entries.lock(trx, { houseId: caller.houseId, registerId: register.id }, ids);
    const entries = new Map(locked.map((entry) => [entry.id, entry]));
    const judgedBy = await this.blocks.judgedBy(at, block.fields);
    let outcome = noOutcome;
    // What may stand once is looked for among what is stored.
    const inTurn = block.fields.some(({ rule }) => rule?.noRepeats);
    let storing = Promise.resolve();
    try {
      for (let done = 0; done < ids.length; done += partSize) {
        const part = ids.slice(done, done + partSize);
        const own = new Map(part.flatMap((id) => (entries.has(id) ? [[id, entries.get(id)!] as const] : [])));
        if (inTurn) await storing;
        const judged = await this.blocks.judge(at, judgedBy, editsOf(at, block, part, from + done, own), own);
        await storing;
        storing = this.blocks.store(at, judged);
        // It is waited for below; until then it may fail.
        storing.catch(() => undefined);
        outcome = bothOutcomes(outcome, judged.outcome);
      }
    } finally {
      // What was asked of the transaction is answered before it ends.
      await Promise.allSettled([storing]);
    }
    await storing;
    return outcome;
  }

  /** Takes back what an act did to some entries: cells get what they held, deleted entries come back, new ones go. */
  private async back(at: ActAt, of: number, ids: readonly string[]): Promise<ActOutcome> {
    const { trx, caller, build, register, actId } = at;
    const place = { houseId: caller.houseId, registerId: register.id };
    const carries = carriesOf(build, register);
    const rows = await this.ledger.ofAct(trx, caller.houseId, of, ids);
    const came = new Set(rows.filter(({ act }) => act === 'entry.inserted' || act === 'entry.restored').map(({ entryId }) => entryId));
    const went = rows.filter(({ act }) => act === 'entry.deleted');
    await this.places.lockOrder(trx, place);
    const entries = new Map((await this.entries.lock(trx, place, ids)).map((entry) => [entry.id, entry]));
    const deleted = went
      .filter(({ entryId }) => !entries.has(entryId))
      .map(({ entryId, from, detail }) => ({ id: entryId, pos: from ?? '0', cells: ofFields(register, detail ?? {}) }));
    const put = await this.putBack(trx, caller, register, deleted, actId);
    const open = new Set(await this.blocks.openAmong(at, seenAs(entries.values(), carries)));
    const gone = [...came].filter((id) => open.has(id));
    if (gone.length > 0) await this.writing.remove(trx, caller, register, gone, carries, actId);
    const wrote = rows.filter(({ act, entryId }) => act === 'cell.written' && !came.has(entryId));
    const own = wrote.filter(({ entryId }) => open.has(entryId));
    const back = takenBack(register, own, entries, carries, true);
    const { after, left } = await this.repeats.leaveOut(trx, caller.houseId, register, seenIn(entries, carries), back.after);
    await this.writing.cells(trx, caller, register, entries, after, carries, actId);
    const taken = back.taken - left;
    return {
      ...noOutcome,
      taken: taken + put + gone.length,
      passedOver: wrote.length - taken + (came.size - gone.length) + (deleted.length - put),
    };
  }

  /** Brings deleted entries back, but for those that hold what may stand once and stands elsewhere by now. Returns how many came. */
  private async putBack(
    trx: Trx,
    caller: Writer,
    register: RegisterBuild,
    deleted: readonly { id: string; pos: string; cells: Cells }[],
    actId: number,
  ): Promise<number> {
    if (deleted.length === 0) return 0;
    const held = new Map(deleted.map(({ id, cells }) => [id, cells]));
    const { after } = await this.repeats.leaveOut(trx, caller.houseId, register, new Map(), held);
    const free = deleted.filter(({ id }) => after.get(id) === held.get(id));
    if (free.length > 0) await this.writing.putBack(trx, caller, register, free, actId);
    return free.length;
  }
}

/** What a settled act works on. */
type Settled = Pick<EntryActRow, 'what' | 'fields' | 'entries'>;

/** A series is seen in so many values at most. */
const mostGiven = 100;

/** What an act that writes does, into which fields, and to how many entries altogether. */
interface WrittenBlock {
  readonly what: WritingAct;
  readonly fields: readonly FieldBuild[];
  readonly total: number;
}

/** What an act gives the cells of some entries, the first of which is the `from`th of the act. */
function editsOf(
  { build, register }: ActAt,
  { what, fields, total }: WrittenBlock,
  ids: readonly string[],
  from: number,
  entries: ReadonlyMap<string, EntryView>,
): Edit[] {
  const carries = carriesOf(build, register);
  const givenAt = givenBy(what, fields, total, build.locale);
  return ids.flatMap((id, place) => {
    const entry = entries.get(id);
    if (!entry) return [];
    const held = carried(entry.cells, carries);
    return fields.flatMap((field: ActField) => {
      const given = givenAt(from + place, field, held[field.key] ?? '');
      return given ? [{ entry: id, field: field.key, ...given }] : [];
    });
  });
}
