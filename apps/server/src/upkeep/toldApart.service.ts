// Values that look alike and are two things: said once, they are not brought up again anywhere in the house.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { valuePair } from '@dellum/core';
import type { TellApartDto, ToldApart } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';

/** More would be a list to keep by itself. */
const mostPairs = 5000;

@Injectable()
export class ToldApartService {
  constructor(
    private readonly builds: StructureService,
    private readonly ledger: LedgerStore,
  ) {}

  /** The pair as it is kept; the one that is there already, if it is. */
  tell(caller: Caller, dto: TellApartDto): Promise<ToldApart> {
    if (dto.one === dto.other) throw new ProblemError('not-valid', 'These are one value. Name two that look alike.');
    return this.builds.change(caller.houseId, async (trx, { toldApart }) => {
      const [one, other] = valuePair(dto.one, dto.other);
      const known = toldApart.find(({ values }) => values[0] === one && values[1] === other);
      if (known) return known;
      if (toldApart.length >= mostPairs)
        throw new ProblemError('not-valid', `${mostPairs} pairs are told apart already. Look for some of them again first.`);
      const id = randomUUID();
      await trx.insertInto('told_apart').values({ house_id: caller.houseId, id, one, other }).execute();
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'values.told apart', from: one, to: other }]);
      return { id, values: [one, other] };
    });
  }

  /** From now on the two are looked for again. */
  forget(caller: Caller, id: string): Promise<void> {
    return this.builds.change(caller.houseId, async (trx, { toldApart }) => {
      const known = toldApart.find((pair) => pair.id === id);
      if (!known) throw notFound('This pair');
      await trx.deleteFrom('told_apart').where('house_id', '=', caller.houseId).where('id', '=', id).execute();
      const [from, to] = known.values;
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'values.looked for again', from, to }]);
    });
  }
}
