// Hands the reading of files and the computing of proposals to threads, so that the server goes on answering.
import { MessageChannel } from 'node:worker_threads';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { HouseProposal } from '@dellum/core';
import { BeyondBounds, BoundThread } from '../threads/boundThread.js';
import type { Read } from './reading.js';
import type { ToPropose } from './proposingThread.js';
import type { ToReadThere } from './readingThread.js';
import { answerParts, type PartOf } from './threadParts.js';

/** Files that need more megabytes, or more milliseconds, are told to be too large. */
const bounds = { memory: 1500, time: 300_000 };
const beyond = {
  memory: 'The files hold more than can be looked at together. Bring fewer of them, or a part of the long one.',
  time: 'The files take too long to be looked at. Bring fewer of them, or a part of the long one.',
};

/** The server stops: what was under way is another one's. */
export class ThreadsStopped extends Error {}

@Injectable()
export class AdoptionThreadsService implements OnApplicationShutdown {
  private stopping = false;
  private readonly reading = new BoundThread(new URL('./readingThread.js', import.meta.url), bounds);
  /** Looking at a proposal does not wait while others are read. */
  private readonly proposing = new BoundThread(new URL('./proposingThread.js', import.meta.url), bounds);

  /** A file begins to come. */
  willRead(): void {
    this.reading.warm();
  }

  /** `part`: of a file, by its place among those wanted. `told`: how many rows are read, now and then. */
  async read(wanted: Omit<ToReadThere, 'port'>, part: PartOf, told: (rows: number) => void): Promise<Read> {
    const { port1: own, port2: port } = new MessageChannel();
    answerParts(own, part, (rows) => {
      // Whoever waits looks at the proposal right afterwards.
      this.proposing.warm();
      told(rows);
    });
    try {
      return (await this.reading.run('read', { ...wanted, port } satisfies ToReadThere, [port])) as Read;
    } catch (error) {
      if (this.stopping) throw new ThreadsStopped('The server stops.', { cause: error });
      if (error instanceof BeyondBounds) return { why: beyond[error.bound] };
      throw error;
    } finally {
      own.close();
    }
  }

  async propose(wanted: ToPropose): Promise<HouseProposal> {
    return (await this.proposing.run('propose', wanted)) as HouseProposal;
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    await Promise.all([this.reading.end(), this.proposing.end()]);
  }
}
