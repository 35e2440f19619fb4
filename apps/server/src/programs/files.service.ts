// Files that a program sends to an intake.
import { Injectable } from '@nestjs/common';
import type { IntakeFileView, ProgramFile, ProgramIntake } from '@dellum/contract';
import { Database } from '../database/database.js';
import { IntakesService } from '../intakes/intakes.service.js';
import { IntakesStore } from '../intakes/intakes.store.js';
import { notFound } from '../problems/index.js';
import type { Program } from './program.js';

@Injectable()
export class ProgramFilesService {
  constructor(
    private readonly database: Database,
    private readonly intakes: IntakesService,
    private readonly store: IntakesStore,
  ) {}

  /** The intakes into whose sheets the program may enter data. */
  async intakesFor({ houseId, writes, registers }: Program): Promise<ProgramIntake[]> {
    if (!writes) return [];
    const all = await this.store.all(this.database.kysely, houseId);
    return all.filter(({ registerId }) => registers.has(registerId)).map(({ id, name, registerId }) => ({ id, name, registerId }));
  }

  async send(program: Program, id: string, name: string, bytes: AsyncIterable<Buffer>): Promise<ProgramFile> {
    await this.mustBeFor(program, id);
    const file = await this.intakes.takeFromProgram(program.houseId, id, { program: program.name, name }, bytes);
    return programFile(file, []);
  }

  /** What has become of a file that was sent. */
  async file(program: Program, id: string, fileId: number): Promise<ProgramFile> {
    await this.mustBeFor(program, id);
    const files = await this.store.file(this.database.kysely, program.houseId, id, fileId);
    const own = files.find((file) => file.id === fileId && file.way === 'program' && file.by === program.name);
    if (!own) throw notFound('This file');
    return programFile(
      own,
      files.filter(({ partOf }) => partOf === fileId),
    );
  }

  private async mustBeFor(program: Program, id: string): Promise<void> {
    if (!(await this.intakesFor(program)).some((intake) => intake.id === id)) throw notFound('This intake');
  }
}

/** `parts`: what was stored of it as files of their own. */
function programFile(own: IntakeFileView, parts: readonly IntakeFileView[]): ProgramFile {
  const stored = [own, ...parts].reduce((sum, { state, rows }) => sum + (state === 'applied' ? rows : 0), 0);
  return { id: own.id, state: stateOf(own.state), stored, waiting: own.state === 'ready' ? own.rows : 0, why: own.why };
}

function stateOf(state: IntakeFileView['state']): ProgramFile['state'] {
  switch (state) {
    case 'coming':
    case 'reading':
      return 'reading';
    case 'unreadable':
      return 'unreadable';
    case 'unclear':
    case 'ready':
      return 'waits';
    case 'applied':
      return 'stored';
  }
}
