// A file of concepts (SKOS) as what can be brought into a house: nothing but lists and catalogs.
import { createHash } from 'node:crypto';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { conceptParts, type LeftOfConcepts } from '@dellum/core';
import { ProblemError } from '../problems/index.js';
import { BeyondBounds, BoundThread } from '../threads/boundThread.js';
import type { ConceptsRead, ConceptsToRead } from './conceptsThread.js';
import type { Incoming } from './houseArchive.js';
import type { ConceptsFormat } from './reading/conceptsFormat.js';

@Injectable()
export class ConceptsService implements OnApplicationShutdown {
  private readonly thread = new BoundThread(new URL('./conceptsThread.js', import.meta.url), { memory: 700, time: 60_000 });

  /** Throws a problem that says what is wrong with it. `language`: of what is to be shown. */
  async open(bytes: Buffer, format: ConceptsFormat, language: string): Promise<Incoming> {
    const found = await this.read({ bytes, format, language });
    if ('why' in found) throw wrong(found.why);
    if (found.schemes.length === 0)
      throw wrong('There is no concept in the file. Bring one that holds concepts (SKOS), or a house archive.');
    const ids = idsOutOf(bytes);
    const { parts, rows } = conceptParts(found.schemes, ids('part'));
    return {
      ...{ name: parts.sheets[0]!.title, at: null, parts, said: saidOf(found.left) },
      async *entries(registerId) {
        await Promise.resolve();
        const idOf = ids(registerId);
        yield (rows.get(registerId) ?? []).map((cells) => ({ id: idOf(), cells }));
      },
    };
  }

  private async read(wanted: ConceptsToRead): Promise<ConceptsRead> {
    try {
      return (await this.thread.run('read', wanted)) as ConceptsRead;
    } catch (error) {
      if (!(error instanceof BeyondBounds)) throw error;
      return { why: 'The file holds more than can be read at once. Bring a part of it.' };
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.thread.end();
  }
}

/** Ids that are the same whenever the file is opened: what is chosen while it is looked at holds when it comes in. */
function idsOutOf(bytes: Buffer): (what: string) => () => string {
  const digest = createHash('sha256').update(bytes).digest();
  return (what) => {
    let count = 0;
    return () => {
      const hex = createHash('sha256').update(digest).update(`${what} ${count++}`).digest('hex');
      // An id of a hash of one's own (RFC 9562, version 8).
      return [hex.slice(0, 8), hex.slice(8, 12), `8${hex.slice(13, 16)}`, `8${hex.slice(17, 20)}`, hex.slice(20, 32)].join('-');
    };
  };
}

const wrong = (words: string) => new ProblemError('not-valid', words, { faults: { file: words } });

const lying = (count: number): string => (count === 1 ? '1 concept lies' : `${count.toLocaleString('en-GB')} concepts lie`);

function saidOf({ several, loose, same }: LeftOfConcepts): string[] {
  const called = same === 1 ? '1 concept is' : `${same.toLocaleString('en-GB')} concepts are`;
  return [
    ...(several > 0 ? [`${lying(several)} under several others: the first of them is taken.`] : []),
    ...(loose > 0
      ? [`${lying(loose)} in a circle, or deeper than a catalog has levels, and ${loose === 1 ? 'comes' : 'come'} without a parent.`]
      : []),
    ...(same > 0
      ? [`${called} called as another one beside, and ${same === 1 ? 'becomes another name' : 'become other names'} of it.`]
      : []),
  ];
}
