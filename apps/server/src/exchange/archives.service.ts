// House archives: the house as a file; and a file, or a template, looked at and brought into the house as additions.
import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { brought, collisionsOf, idsOf, partsHere, registersOf, withIds, type HouseParts, type WayIn } from '@dellum/core';
import {
  houseFile,
  mostArchivedEntries,
  mostFileBytes,
  type ArchiveBrought,
  type ArchiveLook,
  type ArchiveOutDto,
  type BringArchiveDto,
  type Template,
} from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database, type Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { hashPassword } from '../people/passwords.js';
import { notFound, ProblemError } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';
import { ConceptsService } from './concepts.service.js';
import { archived, countsOf, openHouseArchive, wholeEntries, type EntryCounts, type Incoming } from './houseArchive.js';
import { inBatches, LayingStore } from './laying.store.js';
import { LookedArchivesStore } from './lookedArchives.store.js';
import { PartsStore } from './parts.store.js';
import { conceptsFormat } from './reading/conceptsFormat.js';
import { isJsonSchema } from './reading/schemaFormat.js';
import { SchemasService } from './schemas.service.js';
import { Templates } from './templates.js';
import { Zipped } from './zipped.js';

const partSize = 1024 * 1024;
/** So many archives of one person wait; an older one makes room. */
const mostWaiting = 5;
/** So many entries are read, or stored, with one statement. */
const atOnce = 5000;
/** So many archives go out of a server at once: each keeps a connection to the database while it is read. */
const mostOut = 3;

@Injectable()
export class ArchivesService {
  private goingOut = 0;

  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly parts: PartsStore,
    private readonly laying: LayingStore,
    private readonly looked: LookedArchivesStore,
    private readonly entries: EntriesStore,
    private readonly ledger: LedgerStore,
    private readonly shipped: Templates,
    private readonly concepts: ConceptsService,
    private readonly schemas: SchemasService,
  ) {}

  /** The house of one moment, in pieces of a ZIP: however long it is read, nothing of it is younger than the rest. */
  async *out(houseId: string, wanted: ArchiveOutDto): AsyncIterable<Buffer> {
    const moment = await this.database.kysely.startTransaction().setIsolationLevel('repeatable read').setAccessMode('read only').execute();
    try {
      const parts = await this.parts.read(moment, houseId);
      const house = await moment.selectFrom('houses').select(['name', 'locale']).where('id', '=', houseId).executeTakeFirstOrThrow();
      const said = archived(parts, { ...house, at: new Date() }, wanted);
      const first = (await new Zipped().whole(houseFile, JSON.stringify(said, null, 1))).piece();
      yield first.bytes;
      let { state } = first;
      for (const sheet of parts.sheets) {
        if (sheet.kind === 'entry' && wanted.entries === 'no') continue;
        for (const { id: registerId } of sheet.registers) {
          let zip = new Zipped(state).begun(`entries/${registerId}.jsonl`);
          for await (const page of this.entries.inPages(moment, { houseId, registerId }, atOnce)) {
            const piece = (await zip.added(page.map(({ id, cells }) => `${JSON.stringify({ id, cells })}\n`).join(''))).piece();
            yield piece.bytes;
            zip = new Zipped(piece.state);
          }
          const ended = zip.ended().piece();
          yield ended.bytes;
          state = ended.state;
        }
      }
      yield new Zipped(state).closed().piece().bytes;
    } finally {
      await moment.rollback().execute();
    }
  }

  /** Notes that the house goes out, and lets it be written. */
  async goOut(caller: Caller, wanted: ArchiveOutDto, write: (name: string, pieces: AsyncIterable<Buffer>) => Promise<void>): Promise<void> {
    if (this.goingOut >= mostOut) throw new ProblemError('busy', 'Other archives are going out at this moment. Try again in a minute.');
    this.goingOut++;
    try {
      const { houseId } = caller;
      await this.database.transaction((trx) =>
        this.ledger.write(trx, houseId, [{ personId: caller.id, act: 'archive.out', detail: { ...wanted } }]),
      );
      const { key } = await this.database.kysely.selectFrom('houses').select('key').where('id', '=', houseId).executeTakeFirstOrThrow();
      await write(`${key}${wanted.entries === 'yes' ? '' : '-template'}.zip`, this.out(houseId, wanted));
    } finally {
      this.goingOut--;
    }
  }

  templates(): Promise<readonly Template[]> {
    return this.shipped.all();
  }

  /** Takes an archive in and says what it would bring; nothing of it is stored in the house. */
  async look(caller: Caller, bytes: AsyncIterable<Buffer>): Promise<ArchiveLook> {
    const chunks: Buffer[] = [];
    let size = 0;
    for await (const chunk of bytes) {
      size += chunk.length;
      if (size > mostFileBytes)
        throw new ProblemError(
          'too-large',
          `An archive may have ${mostFileBytes / 1024 / 1024} MB here, and this one has more. Bring it in where the server runs: npm run archive -- in FILE`,
        );
      chunks.push(chunk);
    }
    return this.lookAt(caller, Buffer.concat(chunks));
  }

  async lookAtTemplate(caller: Caller, key: string): Promise<ArchiveLook> {
    const bytes = await this.shipped.bytes(key);
    if (!bytes) throw notFound('This template');
    return this.lookAt(caller, bytes);
  }

  private async lookAt(caller: Caller, bytes: Buffer): Promise<ArchiveLook> {
    const archive = await this.opened(caller, bytes);
    const entries = await wholeEntries(archive, mostArchivedEntries);
    const look = randomUUID();
    await this.database.transaction(async (trx) => {
      await this.looked.add(trx, caller, look);
      for (let at = 0; at < bytes.length; at += partSize)
        await this.looked.addPart(trx, caller.houseId, look, at / partSize, bytes.subarray(at, at + partSize));
      await this.looked.removeBeyond(trx, caller, mostWaiting);
    });
    return this.lookOf(caller, look, archive, entries);
  }

  /** One that is being looked at, as it would come in now. */
  async view(caller: Caller, look: string): Promise<ArchiveLook> {
    const archive = await this.waiting(caller, look);
    return this.lookOf(caller, look, archive, await wholeEntries(archive));
  }

  async forget(caller: Caller, look: string): Promise<void> {
    await this.waiting(caller, look);
    await this.looked.remove(this.database.kysely, caller.houseId, look);
  }

  private async waiting(caller: Caller, look: string): Promise<Incoming> {
    const bytes = await this.looked.bytes(this.database.kysely, caller, look);
    if (!bytes) throw notFound('This archive');
    return this.opened(caller, bytes);
  }

  /** A house archive, concepts (SKOS), or a JSON Schema. */
  private async opened({ houseId }: Caller, bytes: Buffer): Promise<Incoming> {
    if (isJsonSchema(bytes)) return this.schemas.open(bytes);
    const format = conceptsFormat(bytes);
    if (!format) return openHouseArchive(bytes);
    const { locale } = await this.builds.now(houseId);
    return this.concepts.open(bytes, format, locale.language);
  }

  private async lookOf(caller: Caller, look: string, archive: Incoming, entries: EntryCounts): Promise<ArchiveLook> {
    const here = partsHere(await this.parts.read(this.database.kysely, caller.houseId));
    return {
      look,
      of: archive.of,
      name: archive.name,
      at: archive.at,
      counts: countsOf(archive.parts, entries),
      collisions: collisionsOf(archive.parts, here),
      said: archive.said,
    };
  }

  /** Brings an archive that was looked at into the house. */
  async bring(caller: Caller, { look, ways }: BringArchiveDto): Promise<ArchiveBrought> {
    const archive = await this.waiting(caller, look);
    const hash = await unknownHash();
    return this.builds.change(caller.houseId, async (trx) => {
      // It comes in once, however often and wherever one says so.
      if (!(await this.looked.remove(trx, caller.houseId, look))) throw notFound('This archive');
      return this.layInto(trx, caller.houseId, archive, { by: caller.id, hash, ways: new Map(ways.map(({ id, way }) => [id, way])) });
    });
  }

  /** Lays an archive into a house that this transaction changes alone. */
  async layInto(
    trx: Trx,
    houseId: string,
    archive: Incoming,
    { by, hash, ways }: { readonly by: string; readonly hash: string; readonly ways: ReadonlyMap<string, WayIn> },
  ): Promise<ArchiveBrought> {
    const known = await this.parts.read(trx, houseId);
    const ids = newIds(archive.parts, known);
    const idOf = (id: string) => ids.get(id) ?? id;
    const chosen = new Map([...ways].map(([id, way]) => [idOf(id), way]));
    // New ids first: what is used as it is here may bear an id that is another thing's in the archive.
    const laid = brought(withIds(archive.parts, ids), partsHere(known), chosen);
    await this.laying.lay(trx, houseId, laid, { by, hash });
    const held = new Map<string, number>();
    const coming = new Set(registersOf(laid).map(({ id }) => id));
    for (const { id } of registersOf(archive.parts)) {
      if (!coming.has(idOf(id))) continue;
      let from = 0;
      for await (const piece of archive.entries(id)) {
        for (const batch of inBatches(piece, atOnce)) {
          await this.laying.entries(trx, houseId, idOf(id), batch, from);
          from += batch.length;
        }
      }
      held.set(idOf(id), from);
    }
    await this.laying.countLaid(trx, houseId, [...coming]);
    const counts = countsOf(laid, held);
    await this.ledger.write(trx, houseId, [{ personId: by, act: 'archive.in', detail: { name: archive.name, counts } }]);
    return { counts, sheets: laid.sheets.map(({ id, title }) => ({ id, title })) };
  }
}

/** A password that nobody knows. */
export const unknownHash = (): Promise<string> => hashPassword(randomBytes(32).toString('base64'));

/** New ids for all, where one of them is known here: the same archive can come in twice. Entries keep theirs, within their register. */
function newIds(parts: HouseParts, known: HouseParts): ReadonlyMap<string, string> {
  const here = new Set(idsOf(known));
  const ids = idsOf(parts);
  return ids.some((id) => here.has(id)) ? new Map(ids.map((id) => [id, randomUUID()])) : new Map<string, string>();
}
