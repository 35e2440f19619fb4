// Intakes: set up by administrators, fed by hand, out of a folder or by programs. What fits of a file is stored by itself, in the name of
// whoever set the intake up last; what is new waits to be looked at.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { mostIntakeFiles, mostIntakes, type IntakeDto, type IntakeFileView, type IntakeView, type IntakeWay } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { EntryActsService } from '../entering/entryActs.service.js';
import { ArrivalsService } from '../exchange/arrivals.service.js';
import { ReturnedStore } from '../exchange/returned.store.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import { feedsCatalogs, StructureService } from '../structure/structure.service.js';
import { standsStill, tooMany } from './standing.js';
import { IntakesStore, type Intake } from './intakes.store.js';

@Injectable()
export class IntakesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: IntakesStore,
    private readonly returned: ReturnedStore,
    private readonly arrivals: ArrivalsService,
    private readonly acts: EntryActsService,
    private readonly ledger: LedgerStore,
    private readonly jobs: JobsService,
  ) {}

  list({ houseId }: Caller): Promise<IntakeView[]> {
    return this.store.all(this.database.kysely, houseId);
  }

  async make(caller: Caller, dto: IntakeDto): Promise<IntakeView> {
    const id = randomUUID();
    await this.database.transaction(async (trx) => {
      const others = await this.others(trx, caller);
      if (others.length >= mostIntakes)
        throw new ProblemError('too-large', `A house has at most ${mostIntakes} intakes. Remove one that nobody needs.`);
      const checked = await this.checked(trx, caller, dto, others);
      await this.store.add(trx, caller.houseId, id, caller.id, checked);
      await this.wrote(trx, caller, 'intake.made', checked.registerId, checked.name);
      await this.look(trx, caller.houseId, id, checked);
    });
    return this.view(caller, id);
  }

  /** Whoever changes it stores in the own name from now on. */
  async change(caller: Caller, id: string, dto: IntakeDto): Promise<IntakeView> {
    await this.database.transaction(async (trx) => {
      const all = await this.others(trx, caller);
      if (!all.some((intake) => intake.id === id)) throw notFound('This intake');
      const checked = await this.checked(
        trx,
        caller,
        dto,
        all.filter((intake) => intake.id !== id),
      );
      await this.store.change(trx, caller.houseId, id, caller.id, checked);
      await this.wrote(trx, caller, 'intake.changed', checked.registerId, checked.name);
      await this.look(trx, caller.houseId, id, checked);
    });
    return this.view(caller, id);
  }

  async setOff(caller: Caller, id: string, off: boolean): Promise<IntakeView> {
    await this.database.transaction(async (trx) => {
      const { registerId, name, folder } = await this.mustBe(trx, caller, id);
      await this.store.setOff(trx, caller.houseId, id, off);
      await this.wrote(trx, caller, off ? 'intake.off' : 'intake.on', registerId, name);
      if (!off) await this.look(trx, caller.houseId, id, { folder });
    });
    return this.view(caller, id);
  }

  /** What it has stored stays; its files stay as files that came. */
  async remove(caller: Caller, id: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      const { registerId, name } = await this.mustBe(trx, caller, id);
      const reading = await this.returned.reading(trx, caller.houseId, id);
      await this.store.remove(trx, caller.houseId, id);
      await this.wrote(trx, caller, 'intake.ended', registerId, name);
      // They waited for one another.
      await this.jobs.send(
        trx,
        'compare',
        reading.map((fileId) => ({ houseId: caller.houseId, fileId })),
      );
    });
  }

  async files(caller: Caller, id: string): Promise<IntakeFileView[]> {
    await this.mustBe(this.database.kysely, caller, id);
    return this.store.files(this.database.kysely, caller.houseId, id);
  }

  /** A file that an administrator brings: it is stored in that person's name. */
  async bring(caller: Caller, id: string, name: string, bytes: AsyncIterable<Buffer>): Promise<IntakeFileView> {
    const intake = await this.mustBe(this.database.kysely, caller, id);
    return this.take(caller, intake, { name, way: 'person' }, bytes);
  }

  /** A file that a program sends. */
  async takeFromProgram(
    houseId: string,
    id: string,
    { program, name }: { readonly program: string; readonly name: string },
    bytes: AsyncIterable<Buffer>,
  ): Promise<IntakeFileView> {
    const intake = await this.store.one(this.database.kysely, houseId, id);
    if (!intake) throw notFound('This intake');
    const why = standsStill(intake);
    if (why !== undefined) throw new ProblemError('not-allowed', why);
    return this.take({ ...intake.person, houseId }, intake, { name, way: 'program', program }, bytes);
  }

  private async take(
    caller: Caller,
    intake: Intake,
    { name, ...from }: { readonly name: string; readonly way: IntakeWay; readonly program?: string },
    bytes: AsyncIterable<Buffer>,
  ): Promise<IntakeFileView> {
    if (intake.open >= mostIntakeFiles) throw new ProblemError('too-many-requests', tooMany(intake.open));
    const arrival = { name, registerId: intake.registerId, intakeId: intake.id, ...from };
    const file = await this.arrivals.take(caller, arrival, bytes, async () => true);
    const [view] = await this.store.file(this.database.kysely, caller.houseId, intake.id, file!);
    if (!view) throw notFound('This file');
    return view;
  }

  /** Takes back what a file has stored, whoever has. */
  async takeBack(caller: Caller, id: string, fileId: number): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.mustBe(trx, caller, id);
      const file = await this.returned.claim(trx, caller.houseId, fileId, ['applied']);
      const known = (await this.store.file(trx, caller.houseId, id, fileId)).find((one) => one.id === fileId);
      if (!file || file.actId === null || file.registerId === null || !known) throw notFound('What this file has stored');
      if (known.takenBack) throw new ProblemError('file-settled', 'What this file has stored is taken back already.');
      await this.acts.backWithin(trx, caller, file.registerId, file.actId);
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'file.taken-back', registerId: file.registerId, detail: { name: file.name } },
      ]);
    });
  }

  private async others(trx: Trx, { houseId }: Caller): Promise<IntakeView[]> {
    await lockBuild(trx, houseId);
    return this.store.all(trx, houseId);
  }

  private async checked(trx: Trx, caller: Caller, dto: IntakeDto, others: readonly IntakeView[]): Promise<IntakeDto> {
    const build = await this.builds.at(trx, caller.houseId);
    const fault = (input: keyof IntakeDto, words: string) => new ProblemError('not-valid', words, { faults: { [input]: words } });
    if (!build.registers.has(dto.registerId)) throw fault('registerId', 'This sheet is not there any more. Choose another one.');
    const register = enteredRegister(build, dto.registerId, caller);
    if (feedsCatalogs(build, register.id))
      throw fault('registerId', `${register.title} feeds catalogs, so files do not come in by themselves. Choose another sheet.`);
    const name = freeName(
      dto.name,
      'name',
      others.map((other) => other.name),
    );
    const twin =
      dto.folder === null ? undefined : others.find((other) => other.folder === dto.folder && other.pattern === dto.pattern.trim());
    if (twin) throw fault('folder', `“${twin.name}” takes the same files. Choose another folder, or say which names are meant.`);
    return { ...dto, name, pattern: dto.pattern.trim() };
  }

  /** Looks at the folder now, and not only when the next minute begins. */
  private async look(trx: Trx, houseId: string, intakeId: string, { folder }: Pick<IntakeDto, 'folder'>): Promise<void> {
    if (folder !== null) await this.jobs.send(trx, 'intake', [{ houseId, intakeId }]);
  }

  private async mustBe(db: Parameters<IntakesStore['one']>[0], { houseId }: Caller, id: string): Promise<Intake> {
    const intake = await this.store.one(db, houseId, id);
    if (!intake) throw notFound('This intake');
    return intake;
  }

  private async view(caller: Caller, id: string): Promise<IntakeView> {
    const found = (await this.list(caller)).find((intake) => intake.id === id);
    if (!found) throw notFound('This intake');
    return found;
  }

  private wrote(trx: Trx, { houseId, id: personId }: Caller, act: string, registerId: string, name: string): Promise<void> {
    return this.ledger.write(trx, houseId, [{ personId, act, registerId, detail: { name } }]);
  }
}
