// Records: one entry at a time, whatever register it is of; with what it names, what names it, and what was changed in it.
import { Injectable } from '@nestjs/common';
import { carried, catalogIdOf, grouped, partReads, type Carry } from '@dellum/core';
import {
  mayDesign,
  type EntryChange,
  type EntryPage,
  type EntryView,
  type LinkHere,
  type LinkOut,
  type RecordsQueryDto,
  type RecordView,
} from '@dellum/contract';
import { StructureService, boundFields } from '../structure/structure.service.js';
import { isOpen, registerOf } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { countKey, CountsStore } from '../counts/counts.store.js';
import { Database, type Reader } from '../database/database.js';
import { Questions } from '../database/questions.js';
import { EntriesStore } from '../entries/entries.store.js';
import { EntryWriterService, Waits } from '../entering/entryWriter.service.js';
import { carriesOf } from '../entries/judging.js';
import { RepeatsService, repeatedBy } from '../entering/repeats.service.js';
import { ClosingService } from '../entering/closing.service.js';
import { seenAs, seenIn, takenBack } from '../entering/takenBack.js';
import { FormMarksStore } from '../entries/formMarks.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { RecordsStore, type ChangeRow, type Holding } from './records.store.js';
import { SeekingService } from './seeking.service.js';

const acts: Readonly<Record<string, EntryChange['act']>> = {
  'cell.written': 'written',
  'cell.followed': 'followed',
  'entry.inserted': 'made',
  'entry.deleted': 'deleted',
  'entry.restored': 'brought back',
};

@Injectable()
export class RecordsService {
  constructor(
    private readonly database: Database,
    private readonly questions: Questions,
    private readonly builds: StructureService,
    private readonly store: RecordsStore,
    private readonly entries: EntriesStore,
    private readonly seeking: SeekingService,
    private readonly counts: CountsStore,
    private readonly writing: EntryWriterService,
    private readonly forms: FormMarksStore,
    private readonly repeats: RepeatsService,
    private readonly closing: ClosingService,
  ) {}

  async search(caller: Caller, registerId: string, dto: RecordsQueryDto): Promise<EntryPage> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const { sought, arranged } = await this.seeking.of(db, build, register, dto);
    const place = { houseId: caller.houseId, registerId };
    const { total, entries } = await this.questions.ask(caller, (asked) =>
      this.store.page(asked, place, sought, arranged, dto.from, dto.count),
    );
    const carries = carriesOf(build, register);
    return { from: dto.from, total, entries: entries.map((entry) => ({ ...entry, cells: carried(entry.cells, carries) })) };
  }

  async record(caller: Caller, registerId: string, entryId: string): Promise<RecordView> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const entry = await this.seen(db, caller, register, entryId, carriesOf(build, register));
    if (!entry) throw notFound('This entry');
    const [marked] = await this.forms.marked(db, build, register, [entry]);
    return {
      entry: marked!,
      out: await this.linksOut(db, caller, build, register, entry),
      here: await this.linksHere(db, caller, build, register, entry),
    };
  }

  private async seen(
    db: Reader,
    caller: Caller,
    register: RegisterBuild,
    entryId: string,
    carries: readonly Carry[],
  ): Promise<EntryView | undefined> {
    const entry = (await this.entries.some(db, { houseId: caller.houseId, registerId: register.id }, [entryId])).get(entryId);
    return entry && { ...entry, cells: carried(entry.cells, carries) };
  }

  /** The entries that fields of this one name: by a catalog whose values are entries of a register. */
  private async linksOut(db: Reader, caller: Caller, build: HouseBuild, register: RegisterBuild, entry: EntryView): Promise<LinkOut[]> {
    const wanted = register.fields.flatMap((field): (Holding & { field: string })[] => {
      const value = entry.cells[field.key];
      const catalog = build.catalogs.get(catalogIdOf(field.rule) ?? '');
      if (value === undefined || !catalog) return [];
      return catalog.definition.parts.flatMap((part) => {
        const { fields } = partReads(part);
        return fields && isOpen(build, fields.registerId, caller)
          ? [{ field: field.key, fieldId: field.id, registerId: fields.registerId, key: fields.value, value }]
          : [];
      });
    });
    const found = await this.store.holding(db, caller.houseId, wanted);
    // A value that stands in several registers, or twice in one, leads to the first of them.
    return [...new Set(wanted.map(({ field }) => field))].flatMap((key) => {
      const { fieldId } = wanted.find(({ field }) => field === key)!;
      const first = found.find((one) => one.fieldId === fieldId);
      return first ? [{ field: key, registerId: first.registerId, entryId: first.id }] : [];
    });
  }

  /** The entries that name this one: in fields bound to a catalog that has it as a value. */
  private async linksHere(db: Reader, caller: Caller, build: HouseBuild, register: RegisterBuild, entry: EntryView): Promise<LinkHere[]> {
    const wanted = [...build.catalogs.values()].flatMap(({ id, definition }) =>
      definition.parts.flatMap((part) => {
        const { fields } = partReads(part);
        const value = fields?.registerId === register.id ? entry.cells[fields.value] : undefined;
        return value === undefined
          ? []
          : boundFields(build, id)
              .filter((field) => isOpen(build, field.registerId, caller))
              .map((field): Holding => ({ fieldId: field.id, registerId: field.registerId, key: field.key, value }));
      }),
    );
    const totals = await this.counts.ofValues(
      db,
      caller.houseId,
      wanted.map(({ fieldId }) => fieldId),
      wanted.map(({ value }) => countKey(value)),
    );
    const held = wanted.filter(({ fieldId, value }) => (totals.get(fieldId)?.get(countKey(value)) ?? 0) > 0);
    const found = grouped(await this.store.holding(db, caller.houseId, held), ({ fieldId }) => fieldId);
    return [...new Map(held.map((one) => [one.fieldId, one])).values()].map(({ fieldId, registerId, value }) => {
      const carries = carriesOf(build, build.registers.get(registerId)!);
      return {
        registerId,
        fieldId,
        total: totals.get(fieldId)!.get(countKey(value))!,
        entries: (found.get(fieldId) ?? []).map(({ id, version, cells }) => ({ id, version, cells: carried(cells, carries) })),
      };
    });
  }

  async history(caller: Caller, registerId: string, entryId: string): Promise<EntryChange[]> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const entry = await this.seen(db, caller, register, entryId, carriesOf(build, register));
    const found = await this.store.changes(db, { houseId: caller.houseId, registerId }, entryId);
    // What one act wrote stands in the order of the fields.
    const places = new Map(register.fields.map(({ key }, at) => [key, at]));
    const placeOf = ({ field }: ChangeRow) => places.get(field ?? '') ?? places.size;
    const rows = [...found].sort((a, b) => b.id - a.id || placeOf(a) - placeOf(b));
    if (!entry && rows.length === 0) throw notFound('This entry');
    // A field holds what was written last; an older change of it cannot be taken back without the newer ones.
    const newest = new Set<string>();
    return rows.map((row) => {
      const isNewest = row.field !== null && !newest.has(row.field);
      if (row.field !== null) newest.add(row.field);
      return changeOf(row, isNewest && entry !== undefined && (entry.cells[row.field!] ?? '') === (row.to ?? ''));
    });
  }

  /**
   * Gives a field what it held before a change, unless it was changed since. Nothing but repeats is judged: what a cell held it may take
   * back.
   */
  takeBack(caller: Caller, registerId: string, entryId: string, change: number, field: string): Promise<EntryView> {
    return this.writing.enter(caller, registerId, async (at): Promise<EntryView | Waits> => {
      const { trx, build, register } = at;
      const carries = carriesOf(build, register);
      const place = { houseId: caller.houseId, registerId };
      const wrote = await this.store.changes(trx, place, entryId, change);
      const row = wrote.find((one) => one.act === 'cell.written' && one.field === field);
      if (!row) throw notFound('This change');
      const entries = new Map((await this.entries.lock(trx, place, [entryId])).map((entry) => [entry.id, entry]));
      await this.closing.mustBeOpen(trx, build, register, seenAs(entries.values(), carries), caller);
      const { after, taken } = takenBack(register, [{ ...row, entryId }], entries, carries, mayDesign(caller.role));
      if (taken === 0) throw new ProblemError('cell-changed', 'This field was changed since, or is gone. Look at the entry again.', {});
      const { left } = await this.repeats.leaveOut(trx, caller.houseId, register, seenIn(entries, carries), after);
      if (left > 0) throw repeatedBy(row.from ?? '');
      const now = await this.writing.change(at, caller, entries, after, carries);
      return now instanceof Waits ? now : now[0]!;
    });
  }
}

function changeOf({ id, at, by, act, field, from, to }: ChangeRow, standing: boolean): EntryChange {
  const written = act === 'cell.written';
  const cell = written || act === 'cell.followed';
  return {
    id,
    at: at.toISOString(),
    by: by ?? 'Dellum',
    act: acts[act] ?? 'written',
    field,
    from: cell ? (from ?? '') : '',
    to: cell ? (to ?? '') : '',
    standing: written && standing,
  };
}

/** So many words are looked for at once: each of them goes through all entries. */
