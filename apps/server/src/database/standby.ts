// A second database that follows the first: what takes long is read there, so that whoever enters data does not wait for it.
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Database, type Reader } from './database.js';

/** So long a question waits for the standby to come near; milliseconds. */
const waitsFor = 250;
const looksEvery = 25;
/** So long nobody asks a standby that failed; milliseconds. */
const restsFor = 5000;
const connections = 4;
/** SQLSTATE of a statement that took too long: elsewhere it would take as long. */
const tookTooLong = '57014';

const wait = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

@Injectable()
export class Standby implements OnApplicationShutdown {
  private readonly standby: Database | undefined;
  private restsUntil = 0;

  /** `url`: of the standby; undefined where there is none, and everything is read from the first database. */
  constructor(
    private readonly primary: Database,
    url: string | undefined,
  ) {
    this.standby = url === undefined ? undefined : new Database(url, connections);
  }

  /**
   * Reads what may take long: from the standby where it knows everything of the house that was stored until now, from the first database
   * otherwise. What fails on the standby is read once more from the first; so `read` changes nothing. `first`: how the first database is
   * read, where that is in a transaction.
   */
  async read<T>(houseId: string, read: (db: Reader) => Promise<T>, first: Reader = this.primary.kysely): Promise<T> {
    const { standby } = this;
    if (!standby || performance.now() < this.restsUntil) return read(first);
    const newest = await seqOf(first, houseId);
    const isNear = await knows(standby.kysely, houseId, newest).catch(() => this.rests());
    if (!isNear) return read(first);
    return read(standby.kysely).catch((error: unknown) => {
      if (error instanceof Error && 'code' in error && error.code === tookTooLong) throw error;
      this.rests();
      return read(first);
    });
  }

  private rests(): false {
    this.restsUntil = performance.now() + restsFor;
    return false;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.standby?.onApplicationShutdown();
  }
}

/** The number of the last change of a house; less than any where the house is not known. */
async function seqOf(db: Reader, houseId: string): Promise<number> {
  const row = await db.selectFrom('house_counters').select('seq').where('house_id', '=', houseId).executeTakeFirst();
  return row?.seq ?? -1;
}

/** Whether the standby has a change of a house, or gets it soon: whoever asks sees what they have stored. */
async function knows(db: Reader, houseId: string, seq: number): Promise<boolean> {
  for (let waited = 0; (await seqOf(db, houseId)) < seq; waited += looksEvery) {
    if (waited >= waitsFor) return false;
    await wait(looksEvery);
  }
  return true;
}
