// Hands the reading of files and the computing of proposals to threads, so that the server goes on answering.
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { HouseProposal } from '@dellum/core';
import { Piscina } from 'piscina';
import type { Read, ToRead } from './reading.js';
import type { ToPropose } from './thread.js';

/** A thread without work ends after so many milliseconds. */
const idle = 10_000;
/** A thread may hold so much; files that need more are told to be too large, and the server lives on. */
const mostMemory = 1500;

/** The server stops: what was under way is another one's. */
export class ThreadsStopped extends Error {}

@Injectable()
export class AdoptionThreadsService implements OnApplicationShutdown {
  private stopping = false;
  private readonly pool = new Piscina({
    filename: new URL('./thread.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: idle,
    resourceLimits: { maxOldGenerationSizeMb: mostMemory },
  });

  async read(wanted: ToRead): Promise<Read> {
    try {
      return (await this.pool.run(wanted, { name: 'read' })) as Read;
    } catch (error) {
      if (this.stopping) throw new ThreadsStopped('The server stops.', { cause: error });
      if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
        return { why: 'The files hold more than can be looked at together. Bring fewer of them, or a part of the long one.' };
      throw error;
    }
  }

  async propose(wanted: ToPropose): Promise<HouseProposal> {
    return (await this.pool.run(wanted, { name: 'propose' })) as HouseProposal;
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    await this.pool.destroy();
  }
}
