// A thread for what comes from outside: it may hold so much, and work for so long; beyond that it ends, and the server lives on.
import { Piscina } from 'piscina';

export interface ThreadBounds {
  /** Megabytes. */
  readonly memory: number;
  /** Milliseconds for one piece of work. */
  readonly time: number;
}
type Transferred = NonNullable<NonNullable<Parameters<Piscina['run']>[1]>['transferList']>;

/** A thread without work ends after so many milliseconds. */
const idle = 10_000;

export class BeyondBounds extends Error {
  constructor(readonly bound: keyof ThreadBounds) {
    super(`The thread came to the end of its ${bound}.`);
  }
}

export class BoundThread {
  private readonly pool: Piscina;

  /** `module`: whose functions it runs. One piece of work waits for the other. */
  constructor(
    module: URL,
    private readonly bounds: ThreadBounds,
  ) {
    this.pool = new Piscina({
      filename: module.href,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: idle,
      resourceLimits: { maxOldGenerationSizeMb: bounds.memory },
    });
  }

  /** Throws `BeyondBounds` where the work is too much, or what it throws itself. */
  async run(name: string, work: unknown, transferList?: Transferred): Promise<unknown> {
    const signal = AbortSignal.timeout(this.bounds.time);
    try {
      return await this.pool.run(work, { name, signal, ...(transferList && { transferList }) });
    } catch (error) {
      if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY') throw new BeyondBounds('memory');
      if (error instanceof Error && error.name === 'AbortError') throw new BeyondBounds('time');
      throw error;
    }
  }

  /** Has the thread, and what it needs, ready for work that is about to come; its module says so by `ready`. */
  warm(): void {
    // What goes wrong is told to whoever has work for it.
    this.pool.run(undefined, { name: 'ready' }).catch(() => undefined);
  }

  end(): Promise<void> {
    return this.pool.destroy();
  }
}
