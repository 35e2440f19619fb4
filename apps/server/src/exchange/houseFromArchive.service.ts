// A house made of an archive, or brought into one, by whoever runs the server.
import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { collisionsOf, freeKeyAmong, partsHere, type Collision, type WayIn } from '@dellum/core';
import type { ArchiveCounts } from '@dellum/contract';
import { Database } from '../database/database.js';
import { houseKey, makeHouse, wrongWriting } from '../houses/houses.service.js';
import { hashPassword } from '../people/passwords.js';
import { PeopleService } from '../people/people.service.js';
import { ProblemError } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';
import { ArchivesService, unknownHash } from './archives.service.js';
import { wholeEntries, type OpenedArchive } from './houseArchive.js';
import { PartsStore } from './parts.store.js';

interface Made {
  readonly counts: ArchiveCounts;
  readonly key: string;
  /** Who signs in first, and with which password. */
  readonly signIn: string;
  readonly password: string;
}

@Injectable()
export class HouseFromArchiveService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly archives: ArchivesService,
    private readonly parts: PartsStore,
    private readonly people: PeopleService,
  ) {}

  /** A new house. Its first administrator gets a new password; where the archive names none, one is made. */
  async make(archive: OpenedArchive): Promise<Made> {
    const fault = wrongWriting(archive.house.locale);
    if (fault) throw new ProblemError('not-valid', fault.message);
    await wholeEntries(archive);
    const password = randomBytes(12).toString('base64url');
    const [passwordHash, hash] = [await hashPassword(password), await unknownHash()];
    return this.database.transaction(async (trx) => {
      const keys = await trx.selectFrom('houses').select('key').execute();
      const key = freeKeyAmong(houseKey(archive.house.name), new Set(keys.map((house) => house.key)));
      const houseId = await makeHouse(trx, { key, name: archive.house.name, demo: false, locale: archive.house.locale });
      const named = archive.parts.people.find(({ role }) => role === 'administrator');
      const by = named?.id ?? (await this.people.addWithin(trx, houseId, { ...first, passwordHash }));
      const { counts } = await this.archives.layInto(trx, houseId, archive, { by, hash, ways: new Map() });
      if (named)
        await trx.updateTable('people').set({ password_hash: passwordHash }).where('house_id', '=', houseId).where('id', '=', by).execute();
      return { counts, key, signIn: named?.signIn ?? first.signIn, password };
    });
  }

  /** Additions to a house, as they are proposed: in the name of its first administrator. */
  async into(
    houseId: string,
    archive: OpenedArchive,
  ): Promise<{ counts: ArchiveCounts; collisions: readonly (Collision & { way: WayIn })[] }> {
    await wholeEntries(archive);
    const hash = await unknownHash();
    return this.builds.change(houseId, async (trx) => {
      const here = await this.parts.read(trx, houseId);
      const by = here.people.find(({ role }) => role === 'administrator');
      if (!by) throw new ProblemError('not-found', 'The house has no administrator.');
      const collisions = collisionsOf(archive.parts, partsHere(here)).map((collision) => ({ ...collision, way: collision.ways[0]! }));
      const { counts } = await this.archives.layInto(trx, houseId, archive, { by: by.id, hash, ways: new Map() });
      return { counts, collisions };
    });
  }
}

const first = { name: 'Administrator', signIn: 'administrator', role: 'administrator' } as const;
