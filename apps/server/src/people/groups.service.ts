// Groups of people: who belongs to one decides which limited sheets are there for whom, so they are part of the build.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { GroupDto } from '@dellum/contract';
import type { Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { freeName, notFound } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { GroupsStore } from './groups.store.js';

@Injectable()
export class GroupsService {
  constructor(
    private readonly builds: StructureService,
    private readonly store: GroupsStore,
    private readonly ledger: LedgerStore,
  ) {}

  make(caller: Caller, dto: GroupDto): Promise<{ id: string }> {
    return this.change(caller, 'group.made', async (trx, build) => {
      const made = { id: randomUUID(), name: nameAmong(build, dto.name, undefined) };
      await this.store.add(trx, caller.houseId, made);
      await this.store.setPeople(trx, caller.houseId, made.id, dto.people);
      return { ...made, people: dto.people };
    });
  }

  alter(caller: Caller, id: string, dto: GroupDto): Promise<{ id: string }> {
    return this.change(caller, 'group.changed', async (trx, build) => {
      groupOf(build, id);
      const name = nameAmong(build, dto.name, id);
      await this.store.rename(trx, caller.houseId, id, name);
      await this.store.setPeople(trx, caller.houseId, id, dto.people);
      return { id, name, people: dto.people };
    });
  }

  /** Sheets that are limited to the group alone are the administrators' then. */
  remove(caller: Caller, id: string): Promise<{ id: string }> {
    return this.change(caller, 'group.deleted', async (trx, build) => {
      const { name } = groupOf(build, id);
      await this.store.remove(trx, caller.houseId, id);
      return { id, name };
    });
  }

  private change<T extends { id: string }>(
    caller: Caller,
    act: string,
    work: (trx: Trx, build: HouseBuild) => Promise<T>,
  ): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const detail = await work(trx, build);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act, detail }]);
      return { id: detail.id };
    });
  }
}

function groupOf({ groups }: HouseBuild, id: string) {
  const group = groups.find((known) => known.id === id);
  if (!group) throw notFound('This group');
  return group;
}

const nameAmong = ({ groups }: HouseBuild, name: string, except: string | undefined): string =>
  freeName(
    name,
    'name',
    groups.filter(({ id }) => id !== except).map((group) => group.name),
  );
