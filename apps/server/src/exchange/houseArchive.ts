// The house archive as bytes: a ZIP of `house.json` and of the entries of each register as JSON Lines.
import { StringDecoder } from 'node:string_decoder';
import { isUUID } from 'class-validator';
import {
  feedingRegisters,
  longestText,
  partFaults,
  registersOf,
  type Cells,
  type HouseParts,
  type PartsRegister,
  type PartsSheet,
  type SourceRange,
} from '@dellum/core';
import {
  archiveVersion,
  houseFile,
  HouseArchiveDto,
  isStorable,
  type ArchiveCounts,
  type ArchiveKind,
  type ArchiveOutDto,
} from '@dellum/contract';
import { shapeFault } from '../api/bodyShape.js';
import { ProblemError, validation } from '../problems/index.js';
import type { LaidEntry } from './laying.store.js';
import { openArchive, type Archive } from './reading/archive.js';
import { UnreadableFile } from './reading/models.js';

/** Of `house.json`, bytes and what it is made of. */
const largestHouse = 64 * 1024 * 1024;
const mostMembers = 4_000_000;
const mostObjects = 1_000_000;
/** A line of entries. */
const longestLine = 4 * 1024 * 1024;

/** What can be brought into a house: what is said in it hangs together. */
export interface Incoming {
  readonly of: ArchiveKind;
  readonly name: string;
  /** When it was written, where it says so. */
  readonly at: string | null;
  readonly parts: HouseParts;
  /** What is to be known before it comes in, in sentences. */
  readonly said: readonly string[];
  /** The entries of a register, in pieces; throws a problem for one that cannot be read. */
  entries(registerId: string): AsyncIterable<readonly LaidEntry[]>;
}
export interface OpenedArchive extends Incoming {
  readonly house: HouseArchiveDto;
}

const unreadable = (words: string) => new ProblemError('not-valid', words, { faults: { file: words } });

/** Throws a problem that says what is wrong with it. */
export async function openHouseArchive(bytes: Buffer): Promise<OpenedArchive> {
  try {
    const archive = await openArchive(bytes);
    if (!archive.has(houseFile)) throw unreadable(`This is no house archive: there is no “${houseFile}” in it.`);
    const house = await houseIn(archive);
    const parts = partsOf(house);
    const [fault, ...more] = partFaults(parts);
    if (fault) throw unreadable(`The archive is damaged. ${fault}${more.length > 0 ? ` ${more.length} more of this kind.` : ''}`);
    const registers = new Map(house.sheets.flatMap((sheet) => sheet.registers.map((register) => [register.id, register] as const)));
    return {
      ...{ of: 'archive', house, name: house.name, at: house.at, parts, said: saidOf(house, parts) },
      entries: (registerId) => {
        const { entries, title, fields } = registers.get(registerId)!;
        return entries === null ? noEntries() : told(entriesIn(archive, entries, title, new Set(fields.map(({ key }) => key))));
      },
    };
  } catch (error) {
    throw toldAs(error);
  }
}

/** What is to be known before it comes in. */
function saidOf(house: HouseArchiveDto, parts: HouseParts): string[] {
  const without = house.sheets.some(({ kind, registers }) => kind === 'entry' && registers.some(({ entries }) => entries === null));
  const feeding = new Set(feedingRegisters(parts.catalogs.map(({ definition }) => definition)));
  const empty = house.sheets.filter(({ registers }) => registers.some(({ id, entries }) => entries === null && feeding.has(id)));
  return [
    ...(without ? ['Its entry sheets come without entries.'] : []),
    ...empty.map(({ title }) => `Catalogs read values from the entries of “${title}”: they offer none until some are entered.`),
    ...(parts.linked.length > 0 ? ['Its linked sources are read when this server may reach them, and are empty until then.'] : []),
    ...(parts.people.length > 0 ? ['Its people come without passwords: give each of them one on the page People.'] : []),
  ];
}

const toldAs = (error: unknown): unknown => (error instanceof UnreadableFile ? unreadable(error.message) : error);

async function* told<T>(pieces: AsyncIterable<T>): AsyncIterable<T> {
  try {
    yield* pieces;
  } catch (error) {
    throw toldAs(error);
  }
}

async function* noEntries(): AsyncIterable<readonly LaidEntry[]> {
  // Left out of the archive.
}

async function houseIn(archive: Archive): Promise<HouseArchiveDto> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of archive.part(houseFile)) {
    size += chunk.length;
    if (size > largestHouse) throw unreadable('The archive is larger than a house can be. It was not opened.');
    chunks.push(chunk);
  }
  const text = Buffer.concat(chunks).toString('utf8');
  if (shapeFault(text, { members: mostMembers, objects: mostObjects }))
    throw unreadable('The archive is damaged: what the house is made of is nested too deep, or has too many members.');
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw unreadable(`The archive is damaged: its “${houseFile}” is not readable JSON.`);
  }
  if (typeof said === 'object' && said !== null && 'version' in said && said.version !== archiveVersion)
    throw unreadable('The archive is of another version of Dellum. Bring it in there, and write it anew.');
  try {
    return (await validation().transform(said, { type: 'body', metatype: HouseArchiveDto })) as HouseArchiveDto;
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    const [place] = Object.keys(error.extras.faults ?? {});
    throw unreadable(`The archive is damaged${place ? ` at ${place}` : ''}: ${error.detail}`);
  }
}

/** What the rules of the form let through is what the core knows, member by member. */
function partsOf({ sheets, ranges, catalogs, linked, forms, figures, groups, people, toldApart }: HouseArchiveDto): HouseParts {
  return {
    sheets: sheets as readonly PartsSheet[],
    ranges: ranges as readonly SourceRange[],
    catalogs: catalogs.map((catalog) => ({
      ...catalog,
      definition: {
        ...catalog.definition,
        order: catalog.definition.order.by === 'used' ? { by: 'used', first: [] } : catalog.definition.order,
      } as HouseParts['catalogs'][number]['definition'],
    })),
    linked,
    forms,
    figures: figures as HouseParts['figures'],
    groups,
    people,
    toldApart: toldApart.map(({ one, other }) => [one, other] as const),
  };
}

async function* entriesIn(archive: Archive, part: string, title: string, fields: ReadonlySet<string>): AsyncIterable<readonly LaidEntry[]> {
  const decoder = new StringDecoder('utf8');
  let begun = '';
  let line = 0;
  const read = (text: string): LaidEntry => {
    line++;
    return entryOf(text, fields) ?? fail(title, line);
  };
  for await (const chunk of archive.part(part)) {
    const lines = (begun + decoder.write(chunk)).split('\n');
    begun = lines.pop()!;
    if (begun.length > longestLine) fail(title, line + 1);
    const whole = lines.filter((text) => text.trim() !== '');
    if (whole.length > 0) yield whole.map(read);
  }
  const last = begun + decoder.end();
  if (last.trim() !== '') yield [read(last)];
}

function fail(title: string, line: number): never {
  throw unreadable(`The archive is damaged: entry ${line.toLocaleString('en-GB')} of “${title}” cannot be read.`);
}

/** An entry of a line, or undefined where it is none that can be stored. */
function entryOf(text: string, fields: ReadonlySet<string>): LaidEntry | undefined {
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    return undefined;
  }
  if (typeof said !== 'object' || said === null || !('id' in said) || !('cells' in said)) return undefined;
  const { id, cells } = said;
  if (!isUUID(id) || typeof cells !== 'object' || cells === null || Array.isArray(cells)) return undefined;
  const fits = Object.entries(cells).every(
    ([key, held]) => fields.has(key) && isStorable(held) && held !== '' && held.length <= longestText,
  );
  return fits ? { id: id as string, cells: cells as Cells } : undefined;
}

/** Reads all entries once, so that one that cannot be read is told before anything is stored; how many there are. */
export async function wholeEntries(archive: Incoming, most = Infinity): Promise<EntryCounts> {
  let all = 0;
  const counts = new Map<string, number>();
  for (const { id, title } of registersOf(archive.parts)) {
    const known = new Set<string>();
    for await (const piece of archive.entries(id)) {
      for (const entry of piece) {
        if (known.has(entry.id)) throw new ProblemError('not-valid', `The archive is damaged: an entry of “${title}” stands in it twice.`);
        known.add(entry.id);
      }
      all += piece.length;
      if (all > most)
        throw new ProblemError(
          'too-large',
          `The archive holds more than ${most.toLocaleString('en-GB')} entries. Bring it in where the server runs: npm run archive -- in FILE`,
        );
    }
    mustHold(archive, id, title, known);
    counts.set(id, known.size);
  }
  return counts;
}

/** Ranges begin and end at entries that are there. */
function mustHold({ parts }: Incoming, registerId: string, title: string, entries: ReadonlySet<string>): void {
  for (const { name, stretches } of parts.ranges) {
    for (const { registerId: own, start, end } of stretches) {
      const anchors = [start.at === 'top' ? null : start.entry, end.ends === 'fixed' ? end.entry : null].filter((entry) => entry !== null);
      if (own === registerId && anchors.some((entry) => !entries.has(entry)))
        throw new ProblemError('not-valid', `The archive is damaged: the range “${name}” names an entry of “${title}” that is not in it.`);
    }
  }
}

const fileOf = (sheet: PartsSheet, register: PartsRegister, { entries }: ArchiveOutDto): string | null =>
  sheet.kind === 'source' || entries === 'yes' ? `entries/${register.id}.jsonl` : null;

/** `house.json` of a house; its people and who keeps what are left out where they are not wanted. */
export function archived(
  parts: HouseParts,
  house: Pick<HouseArchiveDto, 'name' | 'locale'> & { readonly at: Date },
  wanted: ArchiveOutDto,
): Omit<HouseArchiveDto, keyof HouseParts> & { readonly [Part in keyof HouseParts]: unknown } {
  const named = wanted.people === 'yes';
  return {
    version: archiveVersion,
    name: house.name,
    at: house.at.toISOString(),
    locale: house.locale,
    sheets: parts.sheets.map((sheet) => ({
      ...sheet,
      registers: sheet.registers.map((register) => ({ ...register, entries: fileOf(sheet, register, wanted) })),
    })),
    ranges: parts.ranges,
    catalogs: parts.catalogs.map(({ definition: { order, ...definition }, stewards, ...catalog }) => ({
      ...catalog,
      definition: { ...definition, order: order.by === 'used' ? { by: order.by } : order },
      stewards: named ? stewards : [],
    })),
    linked: parts.linked,
    forms: parts.forms,
    figures: parts.figures,
    groups: parts.groups.map((group) => ({ ...group, people: named ? group.people : [] })),
    people: named ? parts.people : [],
    toldApart: parts.toldApart.map(([one, other]) => ({ one, other })),
  };
}

/** How many entries each register has, by its id. */
export type EntryCounts = ReadonlyMap<string, number>;

export function countsOf(parts: HouseParts, counts: EntryCounts): ArchiveCounts {
  const sources = parts.sheets.filter(({ kind }) => kind === 'source');
  const sum = (kind: PartsSheet['kind']) =>
    parts.sheets
      .filter((sheet) => sheet.kind === kind)
      .flatMap(({ registers }) => registers)
      .reduce((all, { id }) => all + (counts.get(id) ?? 0), 0);
  return {
    sheets: parts.sheets.length - sources.length,
    lists: registersOf({ sheets: sources }).length,
    ranges: parts.ranges.length,
    catalogs: parts.catalogs.length,
    linked: parts.linked.length,
    forms: parts.forms.length,
    figures: parts.figures.length,
    groups: parts.groups.length,
    people: parts.people.length,
    rows: sum('source'),
    entries: sum('entry'),
  };
}
