// Hands the reading of files and the computing of proposals to threads, so that the server goes on answering.
import { MessageChannel } from 'node:worker_threads';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { HouseProposal } from '@dellum/core';
import { Piscina } from 'piscina';
import type { Read } from './reading.js';
import { answerParts, type PartOf } from './threadParts.js';
import type { ToPropose, ToReadThere } from './thread.js';

/** A thread without work ends after so many milliseconds. */
const idle = 10_000;
/** A thread may hold so much; files that need more are told to be too large, and the server lives on. */
const mostMemory = 1500;

/** Reading may take so long; milliseconds. */
const longest = 300_000;

const poolOf = (memory: number): Piscina =>
  new Piscina({
    filename: new URL('./thread.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: idle,
    resourceLimits: { maxOldGenerationSizeMb: memory },
  });

/** The server stops: what was under way is another one's. */
export class ThreadsStopped extends Error {}

@Injectable()
export class AdoptionThreadsService implements OnApplicationShutdown {
  private stopping = false;
  private readonly reading = poolOf(mostMemory);
  /** Looking at a proposal does not wait while others are read. */
  private readonly proposing = poolOf(mostMemory);

  /** `part`: of a file, by its place among those wanted. `told`: how many rows are read, now and then. */
  async read(wanted: Omit<ToReadThere, 'port'>, part: PartOf, told: (rows: number) => void): Promise<Read> {
    const { port1: own, port2: port } = new MessageChannel();
    answerParts(own, part, told);
    try {
      const task: ToReadThere = { ...wanted, port };
      return (await this.reading.run(task, { name: 'read', transferList: [port], signal: AbortSignal.timeout(longest) })) as Read;
    } catch (error) {
      if (this.stopping) throw new ThreadsStopped('The server stops.', { cause: error });
      if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
        return { why: 'The files hold more than can be looked at together. Bring fewer of them, or a part of the long one.' };
      if (error instanceof Error && error.name === 'AbortError')
        return { why: 'The files take too long to be looked at. Bring fewer of them, or a part of the long one.' };
      throw error;
    } finally {
      own.close();
    }
  }

  async propose(wanted: ToPropose): Promise<HouseProposal> {
    return (await this.proposing.run(wanted, { name: 'propose' })) as HouseProposal;
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    await Promise.all([this.reading.destroy(), this.proposing.destroy()]);
  }
}
