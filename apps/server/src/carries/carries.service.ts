// Carries: entries follow a correction. From the decision on every reader sees the new spelling (an overlay applied
// when entries are read); the rows follow in a job that goes on after a kill.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { StructureStore, type FieldBuild } from '../structure/structure.store.js';
import { CountsStore } from '../counts/counts.store.js';
import type { Caller } from '../access/access.js';
import { Database, type Trx } from '../database/database.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import { CarriesStore } from './carries.store.js';

const batchSize = 2000;

@Injectable()
export class CarriesService {
  constructor(
    private readonly database: Database,
    private readonly store: CarriesStore,
    private readonly counts: CountsStore,
    private readonly builds: StructureStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly jobs: JobsService,
  ) {}

  /**
   * Decides that entries of a field follow from some spellings to others. Counts move now, once; the rows follow in a job each. `actId`:
   * the act that they belong to, which can be taken back.
   */
  async begin(
    trx: Trx,
    { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>,
    field: FieldBuild,
    pairs: readonly { readonly from: string; readonly to: string }[],
    actId: number | null = null,
  ): Promise<void> {
    const counts =
      (
        await this.counts.ofValues(
          trx,
          houseId,
          [field.id],
          pairs.map(({ from }) => from),
        )
      ).get(field.id) ?? new Map<string, number>();
    const held = pairs.flatMap(({ from, to }) => {
      const total = counts.get(from) ?? 0;
      return total === 0 ? [] : [{ id: randomUUID(), fieldId: field.id, from, to, total }];
    });
    if (held.length === 0) return;
    const both =
      field.kind === 'several values'
        ? await this.store.holdingBoth(trx, houseId, field.registerId, field.key, held)
        : new Map<string, number>();
    await this.counts.write(
      trx,
      houseId,
      held.flatMap(({ fieldId, from, to, total }) => [
        { fieldId, value: from, entries: -total },
        { fieldId, value: to, entries: total - (both.get(from) ?? 0) },
      ]),
    );
    await this.store.redirect(trx, houseId, field.id, held);
    await this.store.add(trx, houseId, held, actId, personId);
    await this.jobs.send(
      trx,
      'carry',
      held.map(({ id }) => ({ houseId, carryId: id })),
    );
    await this.changes.append(
      trx,
      houseId,
      held.map(({ total }) => ({
        audience: 'everyone',
        body: { kind: 'carry', fieldId: field.id, registerId: field.registerId, done: 0, total },
      })),
    );
  }

  /** Works on a carry batch by batch. False when it may not go on before the end; what is left is another job's. */
  async run(houseId: string, carryId: string, mayGoOn: () => boolean): Promise<boolean> {
    while (await this.batch(houseId, carryId)) if (!mayGoOn()) return false;
    return true;
  }

  /** One batch in one transaction; true when there is more to do. */
  private batch(houseId: string, carryId: string): Promise<boolean> {
    return this.database.transaction(async (trx) => {
      const carry = await this.store.claim(trx, houseId, carryId);
      if (!carry) return false;
      const batch = await this.store.rewriteBatch(trx, houseId, carry, batchSize);
      if (batch)
        await this.ledger.write(
          trx,
          houseId,
          batch.rewritten.map((one) => ({
            personId: carry.personId,
            act: carry.actId === null ? 'cell.followed' : 'cell.written',
            registerId: carry.registerId,
            field: carry.key,
            ...one,
            ...(carry.actId !== null && { actId: carry.actId }),
          })),
        );
      const done = carry.done + (batch?.rows ?? 0);
      if (batch) await this.store.progress(trx, houseId, carryId, batch.reached, batch.rows);
      else {
        await this.store.finish(trx, houseId, carryId);
        await this.builds.raiseVersion(trx, houseId);
        await this.ledger.write(trx, houseId, [
          {
            personId: null,
            act: 'carry.finished',
            registerId: carry.registerId,
            field: carry.key,
            from: carry.from,
            to: carry.to,
            detail: { entries: done },
          },
        ]);
      }
      const total = batch ? Math.max(carry.total, done) : done;
      await this.changes.append(trx, houseId, [
        { audience: 'everyone', body: { kind: 'carry', fieldId: carry.fieldId, registerId: carry.registerId, done, total } },
      ]);
      return batch !== undefined;
    });
  }
}
