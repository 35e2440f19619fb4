// What follows from the sources of a house and takes long to find: found once a version, kept over a restart, and said as it was found last
// while it is found anew.
import { setTimeout as after } from 'node:timers/promises';
import { Injectable, Logger } from '@nestjs/common';
import { ChangesStore } from '../changes/changes.store.js';
import { Database } from '../database/database.js';
import { KeptFindingsStore, type KeptFinding } from './keptFindings.store.js';
import { OncePerVersion } from './oncePerVersion.js';

/** Milliseconds: what takes longer to find is kept, and whoever asks is told after them what was found last. */
const patience = 700;

interface OfHouse {
  readonly houseId: string;
  readonly version: number;
}
export interface Found<F> {
  readonly found: F;
  /** False when it is of an older version, while it is found anew. */
  readonly isCurrent: boolean;
}

@Injectable()
export class KeptFindingsService {
  private readonly logger = new Logger('findings');
  private readonly known = new Map<string, OncePerVersion<unknown>>();

  constructor(
    private readonly database: Database,
    private readonly store: KeptFindingsStore,
    private readonly changes: ChangesStore,
  ) {}

  /** What is found in this version. `what` names it; `find` gives what goes through JSON as it is. */
  current<F>(house: OfHouse, what: string, find: () => Promise<F>): Promise<F> {
    let known = this.known.get(what);
    if (!known) this.known.set(what, (known = new OncePerVersion()));
    return known.of(house, () => this.find(house, what, find)) as Promise<F>;
  }

  /** The same where it is found soon; else what was found last, if anything was. The administrators' browsers hear when it is found. */
  async soon<F>(house: OfHouse, what: string, find: () => Promise<F>): Promise<Found<F>> {
    const finding = this.current(house, what, find);
    const found = await Promise.race([finding.then((own) => ({ own })), after(patience)]);
    if (found) return { found: found.own, isCurrent: true };
    const last = (await this.last(house, what)) as { readonly found: F } | undefined;
    if (!last) return { found: await finding, isCurrent: true };
    finding.catch((error: unknown) => this.logger.error(`${what} could not be found: ${String(error)}`));
    return { found: last.found, isCurrent: false };
  }

  private last({ houseId }: OfHouse, what: string): Promise<KeptFinding | undefined> {
    return this.store.last(this.database.kysely, houseId, what);
  }

  private async find<F>(house: OfHouse, what: string, find: () => Promise<F>): Promise<unknown> {
    const last = await this.last(house, what);
    if (last?.version === house.version) return last.found;
    const began = performance.now();
    const found = await find();
    if (performance.now() - began < patience) return found;
    const { houseId, version } = house;
    await this.database.transaction(async (trx) => {
      await this.store.keep(trx, houseId, what, { version, found });
      await this.changes.append(trx, houseId, [{ audience: 'administrators', body: { kind: 'upkeep' } }]);
    });
    return found;
  }
}
