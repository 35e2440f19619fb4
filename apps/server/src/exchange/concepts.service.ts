// A file of concepts (SKOS) as what can be brought into a house: nothing but lists and catalogs.
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { conceptParts, type LeftOfConcepts } from '@dellum/core';
import { ProblemError } from '../problems/index.js';
import { BeyondBounds, BoundThread } from '../threads/boundThread.js';
import type { ConceptsRead, ConceptsToRead } from './conceptsThread.js';
import type { Incoming } from './houseArchive.js';
import { idsOutOf } from './idsOutOf.js';
import { listRows } from './listRows.js';
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
    return { ...{ of: 'concepts', name: parts.sheets[0]!.title, at: null, parts, said: saidOf(found.left) }, entries: listRows(rows, ids) };
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
