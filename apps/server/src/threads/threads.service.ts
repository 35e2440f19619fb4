// Hands long computations to threads, so that the server goes on answering; short ones are done at once.
import { availableParallelism } from 'node:os';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Examined, LookAlike, Spelling } from '@dellum/core';
import { Piscina } from 'piscina';
import { examine, lookAlikes, type ToExamine } from './thread.js';

/** With fewer values the work takes a few milliseconds, less than handing it over. */
const few = 3000;
/** A thread without work ends after so many milliseconds. */
const idle = 60_000;

@Injectable()
export class ThreadsService implements OnApplicationShutdown {
  private readonly pool = new Piscina({
    filename: new URL('./thread.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: idle,
  });

  async lookAlikes(values: readonly Spelling[]): Promise<LookAlike[]> {
    if (values.length <= few) return lookAlikes(values);
    return (await this.pool.run(values, { name: 'lookAlikes' })) as LookAlike[];
  }

  async examine(wanted: ToExamine): Promise<Examined> {
    const rows = [...wanted.sourceState.registers.values()].reduce((sum, { entries }) => sum + entries.length, 0);
    if (rows <= few) return examine(wanted);
    return (await this.pool.run(wanted, { name: 'examine' })) as Examined;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.pool.destroy();
  }
}
