// Looks at the folder of an intake, and takes in what is new in it. Nothing in the folder is changed.
import { createReadStream } from 'node:fs';
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Injectable, Logger } from '@nestjs/common';
import { mostIntakeFiles } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database } from '../database/database.js';
import { ArrivalsService } from '../exchange/arrivals.service.js';
import { slice } from '../jobs/jobs.service.js';
import { SourceFault } from '../linked/adapters/adapter.js';
import { fitsPattern } from '../linked/adapters/filePattern.js';
import { Reachable, type Granted } from '../linked/reachable.js';
import { ProblemError } from '../problems/index.js';
import { IntakesStore, type FolderFile, type Intake } from './intakes.store.js';
import { standsStill, tooMany } from './standing.js';

/** A file that was changed within so many milliseconds may still be written. */
const settled = 5_000;
const mostNames = 10_000;

@Injectable()
export class FoldersService {
  private readonly logger = new Logger('intakes');

  constructor(
    private readonly database: Database,
    private readonly store: IntakesStore,
    private readonly arrivals: ArrivalsService,
    private readonly reachable: Reachable,
  ) {}

  /** Takes in what is new for one slice of time; the rest waits for the next minute. */
  async look(houseId: string, intakeId: string): Promise<void> {
    const db = this.database.kysely;
    const intake = await this.store.one(db, houseId, intakeId);
    if (!intake || intake.isOff || intake.folder === null) return;
    const failure = standsStill(intake) ?? (await this.takeNew(houseId, intake));
    await this.store.fail(db, houseId, intakeId, failure ?? null);
  }

  /** Why files are left; undefined where none is. */
  private async takeNew(houseId: string, intake: Intake): Promise<string | undefined> {
    const until = Date.now() + slice;
    try {
      const granted = await this.granted(houseId);
      const { real, isFolder } = await granted.under(intake.folder!);
      if (!isFolder) return `“${intake.folder}” is a file. Choose a folder.`;
      let { open } = intake;
      for (const file of await this.newIn(houseId, intake, real)) {
        if (open >= mostIntakeFiles) return tooMany(open);
        if (Date.now() > until) return undefined;
        if (await this.take(houseId, intake, granted, file)) open += 1;
      }
      return undefined;
    } catch (error) {
      if (error instanceof SourceFault) return error.message;
      this.logger.error(
        `The folder of “${intake.name}” could not be read: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
      );
      return 'The folder could not be read. Ask whoever runs the server.';
    }
  }

  private async granted(houseId: string): Promise<Granted> {
    const { key } = await this.database.kysely.selectFrom('houses').select('key').where('id', '=', houseId).executeTakeFirstOrThrow();
    return this.reachable.of(key);
  }

  /** What was not taken before as it is now, the oldest first. */
  private async newIn(houseId: string, { id, pattern }: Intake, folder: string): Promise<FolderFile[]> {
    const names = (await readdir(folder, { withFileTypes: true }))
      .filter((entry) => entry.isFile() && !/^[.~]/u.test(entry.name) && (pattern === '' || fitsPattern(pattern, entry.name)))
      .map(({ name }) => name);
    if (names.length > mostNames)
      throw new SourceFault(
        `There are ${names.length.toLocaleString('en-GB')} files in the folder; at most ${mostNames.toLocaleString('en-GB')} are looked at. Move old ones away.`,
      );
    const taken = await this.store.taken(this.database.kysely, houseId, id);
    const found: FolderFile[] = [];
    for (const name of names) {
      const known = await stat(join(folder, name)).catch(() => undefined);
      // The database keeps whole milliseconds of our moments.
      const modified = known && new Date(Math.trunc(known.mtimeMs));
      if (!known || !modified || Math.abs(Date.now() - known.mtimeMs) < settled) continue;
      const before = taken.get(name);
      if (before?.size !== known.size || before.modified.getTime() !== modified.getTime()) found.push({ name, size: known.size, modified });
    }
    return found.sort((one, other) => one.modified.getTime() - other.modified.getTime() || (one.name < other.name ? -1 : 1));
  }

  /** False where another server has taken it. */
  private async take(houseId: string, intake: Intake, granted: Granted, file: FolderFile): Promise<boolean> {
    const caller: Caller = { ...intake.person, houseId };
    const name = file.name.slice(0, 200);
    const arrival = { name, registerId: intake.registerId, intakeId: intake.id, way: 'folder' } as const;
    const note = (trx: Parameters<IntakesStore['take']>[0]) => this.store.take(trx, houseId, intake.id, file);
    try {
      const { real } = await granted.under(join(intake.folder!, file.name));
      return (await this.arrivals.take(caller, arrival, createReadStream(real), note)) !== undefined;
    } catch (error) {
      const why = whyNotRead(error);
      if (why === undefined) throw error;
      return this.database.transaction(async (trx) => {
        const isNew = await note(trx);
        if (isNew) await this.store.addUnreadable(trx, caller, intake, name, why);
        return isNew;
      });
    }
  }
}

/** Why a file of the folder is not taken; undefined where that is no fault of the file. */
function whyNotRead(error: unknown): string | undefined {
  if (error instanceof ProblemError || error instanceof SourceFault) return error.message;
  const code = error instanceof Error && 'syscall' in error && 'code' in error ? String(error.code) : undefined;
  return (
    code && `The server could not read it in the folder (${code}). Ask whoever runs the server; it is tried again when the file changes.`
  );
}
