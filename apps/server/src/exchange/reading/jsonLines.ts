// Reads JSON Lines: an object a line, whose members are the columns.
import { setImmediate } from 'node:timers/promises';
import { joinedMark, valuesIn, writeSeveral, type CameBack } from '@dellum/core';
import {
  countAnew,
  longestText,
  mostColumns,
  nothingNoticed,
  UnreadableFile,
  type OpenedFile,
  type Piece,
  type ReadRow,
} from './models.js';
import type { FileBytes } from './fileBytes.js';
import { headOf, textsOf } from './texts.js';

type Members = Readonly<Record<string, unknown>>;

const isObject = (held: unknown): held is Members => typeof held === 'object' && held !== null && !Array.isArray(held);

/** Whether its first line is an object, whatever the file is called. */
export async function isJsonLines(file: FileBytes): Promise<boolean> {
  const [line] = (await headOf(file)).trimStart().split('\n');
  if (!line?.startsWith('{')) return false;
  try {
    return isObject(JSON.parse(line));
  } catch {
    return false;
  }
}

export function openJsonLines(file: FileBytes, title: string): OpenedFile {
  const noticed = nothingNoticed();
  return {
    noticed,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      const columns = await columnsOf(file);
      noticed.beyond = Math.max(0, columns.size - mostColumns);
      const shown = [...columns].filter(([, at]) => at < mostColumns);
      yield { piece: 'sheet', title, hidden: false };
      yield { piece: 'rows', rows: [{ number: 1, cells: new Map(shown.map(([name, at]) => [at, { is: 'text', text: name }])) }] };
      for await (const lines of objectsOf(file)) {
        const rows = lines.flatMap(({ number, members }): ReadRow[] => {
          const cells = cellsOf(members, columns);
          return cells.size > 0 ? [{ number: number + 1, cells }] : [];
        });
        if (rows.length > 0) yield { piece: 'rows', rows };
      }
    },
  };
}

/** The columns in the order in which they come up first. */
async function columnsOf(file: FileBytes): Promise<ReadonlyMap<string, number>> {
  const columns = new Map<string, number>();
  for await (const lines of objectsOf(file))
    for (const { members } of lines) for (const name of Object.keys(members)) if (!columns.has(name)) columns.set(name, columns.size);
  return columns;
}

interface Line {
  /** Counted from 1. */
  readonly number: number;
  readonly members: Members;
}

async function* objectsOf(file: FileBytes): AsyncIterable<readonly Line[]> {
  let begun = '';
  let number = 0;
  for await (const { text, isLast } of textsOf(file)) {
    const lines = (begun + text).split('\n');
    begun = isLast ? '' : lines.pop()!;
    if (begun.length > longestText) throw noObject(number + lines.length + 1);
    const read: Line[] = [];
    for (const line of lines) {
      number++;
      if (line.trim() !== '') read.push({ number, members: membersOf(line, number) });
    }
    yield read;
    // Others have their turn.
    await setImmediate();
  }
}

const noObject = (number: number) =>
  new UnreadableFile(
    `Line ${number.toLocaleString('en-GB')} of the file is no JSON object. Mend it where the file was made, and bring it again.`,
  );

/** What a line holds; of an entry that was downloaded here, its cells. */
function membersOf(line: string, number: number): Members {
  let said: unknown;
  try {
    said = JSON.parse(line);
  } catch {
    throw noObject(number);
  }
  if (!isObject(said)) throw noObject(number);
  return typeof said['id'] === 'string' && isObject(said['cells']) ? said['cells'] : said;
}

function cellsOf(members: Members, columns: ReadonlyMap<string, number>): Map<number, CameBack> {
  const cells = new Map<number, CameBack>();
  for (const [name, held] of Object.entries(members)) {
    const at = columns.get(name)!;
    const cell = at < mostColumns ? cellOf(held) : undefined;
    if (cell) cells.set(at, cell);
  }
  return cells;
}

/** A member as a cell; what is made of several is written as JSON, but for a list of plain ones. */
function cellOf(held: unknown): CameBack | undefined {
  if (held === null || held === '') return undefined;
  if (typeof held === 'number') return { is: 'number', number: held };
  if (typeof held === 'boolean') return { is: 'text', text: String(held).toUpperCase() };
  if (typeof held === 'string') return { is: 'text', text: held.includes(joinedMark) ? writeSeveral(valuesIn(held)) : held };
  const plain = Array.isArray(held) && held.every((one) => typeof one === 'string' || typeof one === 'number');
  return { is: 'text', text: plain ? writeSeveral(held.map(String)) : JSON.stringify(held) };
}
