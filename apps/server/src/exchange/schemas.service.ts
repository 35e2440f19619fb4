// A JSON Schema (draft 2020-12) as what can be brought into a house: a sheet with its rules, and the lists that it names.
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { ProblemError } from '../problems/index.js';
import { BeyondBounds, BoundThread } from '../threads/boundThread.js';
import type { Incoming } from './houseArchive.js';
import { idsOutOf } from './idsOutOf.js';
import { listRows } from './listRows.js';
import type { SchemaRead } from './schemaThread.js';

const largest = 8 * 1024 * 1024;

const wrong = (words: string) => new ProblemError('not-valid', words, { faults: { file: words } });

@Injectable()
export class SchemasService implements OnApplicationShutdown {
  private readonly thread = new BoundThread(new URL('./schemaThread.js', import.meta.url), { memory: 500, time: 20_000 });

  /** Throws a problem that says what is wrong with it. */
  async open(bytes: Buffer): Promise<Incoming> {
    if (bytes.length > largest) throw wrong(`A schema may have ${largest / 1024 / 1024} MB, and this one has more. Bring a part of it.`);
    const made = await this.read(bytes);
    if ('why' in made) throw wrong(made.why);
    const { parts, rows, said } = made;
    return { of: 'schema', name: parts.sheets[0]!.title, at: null, parts, said, entries: listRows(rows, idsOutOf(bytes)) };
  }

  private async read(bytes: Buffer): Promise<SchemaRead> {
    try {
      return (await this.thread.run('read', bytes)) as SchemaRead;
    } catch (error) {
      if (!(error instanceof BeyondBounds)) throw error;
      return { why: 'The schema says more than can be read at once. Bring a part of it.' };
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.thread.end();
  }
}
