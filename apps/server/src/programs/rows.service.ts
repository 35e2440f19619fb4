// Rows of a program: judged as a person's entries are, and stored exactly once for a key.
import { createHash, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  blankIsWrong,
  cellsOfNew,
  grouped,
  judgeEdit,
  givenByPlain,
  isNothing,
  plainValue,
  type Cells,
  type Edit,
  type Given,
  type Rule,
  type Verdict,
} from '@dellum/core';
import type { CheckRowsDto, JudgedRow, JudgedRows, PlainRow, RowFault, StoreRowsDto } from '@dellum/contract';
import { Database, holdBuild, type Trx } from '../database/database.js';
import { BlockJudgingService } from '../entering/blockJudging.service.js';
import { EntryWriterService } from '../entering/entryWriter.service.js';
import { NewValuesService, type JudgedCell } from '../entering/newValues.service.js';
import { PlacesStore } from '../entries/places.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { AccessTokensStore } from './accessTokens.store.js';
import type { Program } from './program.js';

const longestKey = 200;

/** A row as an entry that may come to be. */
interface RowAtHand {
  readonly id: string;
  readonly faults: RowFault[];
  readonly given: readonly (Given & { readonly field: string })[];
}

@Injectable()
export class RowsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly judging: BlockJudgingService,
    private readonly writing: EntryWriterService,
    private readonly newValues: NewValuesService,
    private readonly places: PlacesStore,
    private readonly tokens: AccessTokensStore,
    private readonly ledger: LedgerStore,
  ) {}

  /** What would become of rows; nothing is stored. */
  check(program: Program, registerId: string, dto: CheckRowsDto): Promise<JudgedRows> {
    return this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, program.houseId);
      return outcomeOf((await this.judge(trx, build, registerFor(program, build, registerId), dto)).rows);
    });
  }

  /** Stores the rows that are taken whole. Sent again under the same key it stores nothing, and answers what it answered. */
  async store(program: Program, registerId: string, key: string | undefined, dto: StoreRowsDto): Promise<JudgedRows> {
    if (!program.writes)
      throw new ProblemError('not-allowed', 'This token reads only. An administrator of the house makes one that writes.');
    if (!key || key.length > longestKey)
      throw new ProblemError(
        'key-missing',
        `Send a key of your own for this request as “Idempotency-Key”, of at most ${longestKey} characters.`,
      );
    const asked = createHash('sha256')
      .update(JSON.stringify([registerId, dto.rows, dto.confirmed ?? false]))
      .digest();
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, program.houseId);
      const build = await this.builds.at(trx, program.houseId);
      const register = registerFor(program, build, registerId);
      const before = await this.tokens.claimKey(trx, program.houseId, program.tokenId, key, asked);
      if (before !== 'new') {
        if (!before.asked.equals(asked))
          throw new ProblemError(
            'key-reused',
            'This key was sent with other rows before. Use a new key for each request, and the old one to repeat it.',
          );
        return before.answer as JudgedRows;
      }
      if (feedsCatalogs(build, register.id))
        throw new ProblemError(
          'not-allowed',
          `${register.title} feeds catalogs, so programs cannot enter data in it. Enter it on its sheet.`,
        );
      await this.places.lockOrder(trx, { houseId: program.houseId, registerId: register.id });
      const { rows, cells } = await this.judge(trx, build, register, dto);
      const outcome = await this.write(trx, program, register, rows, cells);
      await this.tokens.answer(trx, program.houseId, program.tokenId, key, outcome);
      return outcome;
    });
  }

  private async write(
    trx: Trx,
    program: Program,
    register: RegisterBuild,
    rows: readonly Judged[],
    judged: readonly JudgedCell[],
  ): Promise<JudgedRows> {
    const nobody = { id: null, houseId: program.houseId };
    const taken = rows.filter(({ outcome }) => outcome.taken);
    if (taken.length > 0) {
      const entries = taken.map(({ id, cells }) => ({ id, cells }));
      await this.writing.insert(trx, nobody, register, undefined, entries, 'entry.inserted');
      const stored = new Set(taken.map(({ id }) => id));
      await this.newValues.keepRequests(
        trx,
        nobody,
        register,
        judged.filter(({ entry }) => stored.has(entry)),
      );
      await this.ledger.write(trx, program.houseId, [
        {
          personId: null,
          act: 'program.entered',
          registerId: register.id,
          detail: { id: program.tokenId, name: program.name, entries: taken.length },
        },
      ]);
    }
    return outcomeOf(rows.map((row) => (row.outcome.taken ? { ...row, outcome: { ...row.outcome, entry: row.id } } : row)));
  }

  private async judge(trx: Trx, build: HouseBuild, register: RegisterBuild, { rows, confirmed = false }: CheckRowsDto) {
    const fields = register.fields.map((field) => ({ ...field, rule: askedFor(field.rule) }));
    const judgement = { ...(await this.judging.judgement(trx, build, register, fields, rows.length <= 200, 'clerk')), fields };
    const begun = cellsOfNew(fields, undefined, judgement.today ?? '');
    const atHand = rows.map((row): RowAtHand => ({ id: randomUUID(), ...readRow(row, fields, judgement) }));
    const entries = new Map(atHand.map(({ id }) => [id, { id, version: 0, cells: begun }]));
    const edits = atHand.flatMap(({ id, given }) => given.map((one): Edit => ({ entry: id, ...one, ...(confirmed && { confirmed }) })));
    const byKey = new Map(fields.map((field) => [field.key, field]));
    const { outcomes, after } = await this.judging.block(trx, build.houseId, { ...register, fields }, edits, byKey, entries, judgement);
    const refused = grouped(
      outcomes.filter(({ verdict }) => verdict.verdict === 'refused'),
      ({ entry }) => entry,
    );
    const judged = atHand.map(({ id, faults, given }, at): Judged => {
      const cells = after.get(id) ?? begun;
      const own = [...faults, ...(refused.get(id) ?? []).map(({ field, verdict }) => faultOf(field, verdict as Refused))];
      for (const field of fields) {
        if (!blankIsWrong(field) || (cells[field.key] ?? '') !== '' || own.some((fault) => fault.field === field.key)) continue;
        const verdict = judgeEdit(field, { typed: '' }, cells, { ...judgement, answering: true });
        if (verdict.verdict === 'refused') own.push(faultOf(field.key, verdict));
      }
      if (own.length === 0 && given.every(isNothing))
        own.push({ field: '', code: 'blank', message: 'The row holds nothing.', suggestions: [] });
      const shown = fields.flatMap(({ key, kind }) => (cells[key] ? [[key, plainValue(kind, cells[key])] as const] : []));
      return { id, cells, outcome: { row: at, taken: own.length === 0, cells: Object.fromEntries(shown), faults: own } };
    });
    const cells = outcomes.map(({ entry, field, verdict }): JudgedCell => ({
      entry,
      field: byKey.get(field)!,
      verdict,
      cells: after.get(entry) ?? begun,
    }));
    return { rows: judged, cells };
  }
}

interface Judged {
  readonly id: string;
  readonly cells: Cells;
  readonly outcome: JudgedRow;
}
type Refused = Extract<Verdict, { verdict: 'refused' }>;

/** The register, where the token opens it. */
export function registerFor(program: Program, build: HouseBuild, registerId: string): RegisterBuild {
  const register = program.registers.has(registerId) ? build.registers.get(registerId) : undefined;
  if (!register || register.source) throw notFound('This register');
  return register;
}

/** Programs add nothing to sources: a new value is asked for, as those that come by a link are. */
const askedFor = (rule: Rule | null): Rule | null => (rule?.others === 'add' ? { ...rule, others: 'request' } : rule);

function readRow(
  row: PlainRow,
  fields: RegisterBuild['fields'],
  judgement: Parameters<typeof givenByPlain>[2],
): Pick<RowAtHand, 'faults' | 'given'> {
  const faults: RowFault[] = [];
  const given: (Given & { field: string })[] = [];
  for (const [key, plain] of Object.entries(row)) {
    const field = fields.find((known) => known.key === key);
    const one = field
      ? givenByPlain(field, plain, judgement)
      : { fault: `There is no field “${key}”. The schema of the sheet lists them.` };
    if (!('fault' in one)) given.push({ field: key, ...one });
    else faults.push({ field: key, code: field ? 'wrong kind' : 'no such field', message: one.fault, suggestions: [] });
  }
  return { faults, given };
}

const faultOf = (field: string, { code, message, suggestions, mayConfirm }: Refused): RowFault => ({
  field,
  code,
  message,
  suggestions,
  ...(mayConfirm && { mayConfirm }),
});

function outcomeOf(judged: readonly Judged[]): JudgedRows {
  const rows = judged.map(({ outcome }) => outcome);
  const taken = rows.filter((row) => row.taken).length;
  return { taken, refused: rows.length - taken, rows };
}
