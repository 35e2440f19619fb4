// Requests: clerks' requests for new values, answered by whoever keeps the catalog. An accepted value is written into the source
// and the entries come right; a mapped one is remembered as another name and the entries follow; a declined one stays outside.
import { Injectable } from '@nestjs/common';
import {
  carried,
  clean,
  grouped,
  groupRequests,
  itemKey,
  joinedValues,
  valuesIn,
  withTexts,
  type Cells,
  type KeptItem,
  type Proposal,
  type Step,
} from '@dellum/core';
import { keeps, type AnswerRequestDto, type OwnRequest, type RequestAtEntry, type RequestCount, type RequestGroup } from '@dellum/contract';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import { registerOf } from '../structure/sheetAccess.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { keptCatalogOf } from '../catalogs/catalogs.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { adding } from '../catalogs/itemSteps.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { EntryWriterService } from '../entering/entryWriter.service.js';
import { carriesOf } from '../entries/judging.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { RequestsStore, type WaitingRequest } from '../entering/requests.store.js';

@Injectable()
export class RequestsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly store: RequestsStore,
    private readonly sources: SourcesService,
    private readonly sourceStates: SourceStatesService,
    private readonly entries: EntriesStore,
    private readonly writing: EntryWriterService,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  private async waitingFor(caller: Caller, build: HouseBuild): Promise<WaitingRequest[]> {
    return this.store.waiting(
      this.database.kysely,
      caller.houseId,
      [...build.catalogs.values()].filter((catalog) => keeps(caller, catalog)).map(({ id }) => id),
    );
  }

  /** The requests that wait for the catalogs in the caller's care, like ones together. */
  async waiting(caller: Caller): Promise<RequestGroup[]> {
    const build = await this.builds.now(caller.houseId);
    const requests = await this.waitingFor(caller, build);
    const catalogs = await this.catalogs.some(this.database.kysely, build, [...new Set(requests.map(({ catalogId }) => catalogId))]);
    return [...catalogs].flatMap(([catalogId, catalog]) => {
      const own = requests.filter((request) => request.catalogId === catalogId);
      return groupRequests(
        own.map(({ path, value }) => ({ path, value, entries: 1 })),
        catalog,
      ).map((group): RequestGroup => {
        const values = new Set(group.spellings.map(({ value }) => value));
        const among = own.filter(({ path, value }) => values.has(value) && path.join('\u001F') === group.path.join('\u001F'));
        return {
          ...group,
          catalogId,
          by: [...new Set(among.map(({ by }) => by))],
          since: among[0]!.at.toISOString(),
          fields: [...new Set(among.map(({ fieldId }) => fieldId))],
        };
      });
    });
  }

  /** What the caller has asked for lately, the newest first. */
  own(caller: Caller): Promise<OwnRequest[]> {
    return this.store.ofPerson(this.database.kysely, caller.houseId, caller.id);
  }

  async count(caller: Caller): Promise<RequestCount> {
    return { waiting: (await this.waitingFor(caller, await this.builds.now(caller.houseId))).length };
  }

  async ofRegister(caller: Caller, registerId: string): Promise<RequestAtEntry[]> {
    registerOf(await this.builds.now(caller.houseId), registerId, caller);
    return this.store.ofRegister(this.database.kysely, caller.houseId, registerId);
  }

  answer(caller: Caller, dto: AnswerRequestDto): Promise<{ entries: number }> {
    return this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const { title } = keptCatalogOf(build, dto.catalogId, caller);
      const values = new Set(dto.values);
      const requests = (await this.store.waiting(trx, caller.houseId, [dto.catalogId])).filter(
        ({ path, value }) => values.has(value) && path.join('\u001F') === dto.path.join('\u001F'),
      );
      if (requests.length === 0) throw notFound('This request');
      const answer = dto.answer === 'declined' ? null : clean(dto.to ?? (dto.answer === 'accepted' ? dto.values[0]! : ''));
      if (answer === '') throw new ProblemError('not-valid', 'Say which value is meant.', { faults: { to: 'Say which value is meant.' } });
      if (answer !== null) await this.settle(trx, caller, build, dto, title, answer, requests);
      await this.store.answer(
        trx,
        caller.houseId,
        requests.map(({ id }) => id),
        caller.id,
        dto.answer,
        answer,
        clean(dto.word ?? ''),
      );
      await this.ledger.write(trx, caller.houseId, [
        {
          personId: caller.id,
          act: `request.${dto.answer}`,
          from: dto.values.join(', '),
          ...(answer !== null && { to: answer }),
          detail: { catalogId: dto.catalogId, path: dto.path, word: dto.word ?? '', entries: requests.length },
        },
      ]);
      const registers = new Set(requests.map(({ fieldId }) => build.fields.get(fieldId)!.registerId));
      await this.changes.append(
        trx,
        caller.houseId,
        [...registers].map((registerId) => ({ audience: 'everyone', body: { kind: 'requests', registerId } })),
      );
      return { entries: requests.length };
    });
  }

  /** Writes the value into the source where it is new, remembers the other spellings, and lets the entries follow. */
  private async settle(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    dto: AnswerRequestDto,
    title: string,
    value: string,
    requests: readonly WaitingRequest[],
  ): Promise<void> {
    const catalog = { id: dto.catalogId, title, sourceState: await this.sourceStates.read(trx, build, { catalogs: [dto.catalogId] }) };
    const known = (await this.catalogs.some(trx, build, [dto.catalogId]))
      .get(dto.catalogId)!
      .all.some((item) => item.value === value && item.path.join('\u001F') === dto.path.join('\u001F') && item.state === 'offered');
    if (dto.answer === 'mapped' && !known) throw notFound(`“${value}” in ${title}`);
    const steps: Step[] =
      dto.answer === 'accepted' && !known ? [...adding(catalog, { path: [...dto.path], value, widen: true }).steps] : [];
    const others = dto.values.map(clean).filter((other) => other !== value);
    if (others.length > 0) {
      const kept: KeptItem = catalog.sourceState.kept
        .get(dto.catalogId)
        ?.find((item) => itemKey(item) === itemKey({ path: dto.path, value })) ?? { value, path: dto.path, retired: false, otherNames: [] };
      steps.push({
        what: 'items kept',
        catalogId: dto.catalogId,
        items: [{ ...kept, otherNames: [...new Set([...kept.otherNames, ...others])] }],
      });
    }
    const following = requests.filter((request) => request.value !== value);
    const instead: Instead = (held) =>
      joinedValues(valuesIn(held).map((one) => (following.some((request) => request.value === one) ? value : one)));
    const { proposed, direct } = parted(build, following, instead);
    const proposal: Proposal = { steps: [...steps, ...proposed] };
    const outcome = await this.sources.proposeWithin(trx, caller, build, proposal);
    if (outcome.slip)
      throw new ProblemError(
        'slip-open',
        'This answer would change entries elsewhere. Let an administrator write the value where it is kept.',
      );
    for (const [field, ids] of direct) await this.follow(trx, caller, build, field, ids, instead);
  }

  /** Entries that asked for another spelling get the value instead of it. */
  private async follow(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    field: FieldBuild,
    ids: readonly string[],
    instead: Instead,
  ): Promise<void> {
    const register = build.registers.get(field.registerId)!;
    const carries = carriesOf(build, register);
    const entries = new Map(
      (await this.entries.lock(trx, { houseId: caller.houseId, registerId: register.id }, ids)).map((entry) => [entry.id, entry]),
    );
    const after = new Map(
      [...entries].map(([id, entry]): [string, Cells] => {
        const cells = carried(entry.cells, carries);
        return [id, withTexts(cells, [[field.key, instead(cells[field.key] ?? '')]])];
      }),
    );
    await this.writing.cells(trx, caller, register, entries, after, carries);
  }
}

/** What a cell holds once its requests are answered: the value alone, or among others. */
type Instead = (held: string) => string;

/** Entries that are values elsewhere change by the proposal; all others are written. */
function parted(
  build: HouseBuild,
  requests: readonly WaitingRequest[],
  instead: Instead,
): { proposed: Step[]; direct: Map<FieldBuild, string[]> } {
  const feeds = ({ fieldId }: WaitingRequest) => feedsCatalogs(build, build.fields.get(fieldId)!.registerId);
  const proposed = requests.filter(feeds).map(({ fieldId, entryId, held }): Step => {
    const { registerId, key } = build.fields.get(fieldId)!;
    return { what: 'act', registerId, act: { act: 'write', cells: [{ entry: entryId, field: key, text: instead(held) }] } };
  });
  const direct = grouped(
    requests.filter((request) => !feeds(request)),
    ({ fieldId }) => build.fields.get(fieldId)!,
  );
  return { proposed, direct: new Map([...direct].map(([field, own]) => [field, own.map(({ entryId }) => entryId)])) };
}
