// People who write without pause, each into entries of their own, and know of each write whether it was acknowledged.
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';

/** A request that was answered, or of which nobody knows what became. */
export type Came = { readonly came: 'answered'; readonly status: number; readonly body: unknown } | { readonly came: 'unknown' };

/** Speaks to whichever server answers; nothing is asked twice by itself. */
export class Speaker {
  constructor(
    private readonly bases: readonly string[],
    private readonly cookie: string,
  ) {}

  async say(method: string, path: string, body?: unknown): Promise<Came> {
    const base = this.bases[Math.floor(Math.random() * this.bases.length)]!;
    try {
      const response = await fetch(`${base}/api/v1${path}`, {
        method,
        headers: { cookie: this.cookie, ...(body !== undefined && { 'content-type': 'application/json' }) },
        ...(body !== undefined && { body: JSON.stringify(body) }),
      });
      const text = await response.text();
      // Where the database went away, it may have stored it before.
      if (response.status >= 500) return { came: 'unknown' };
      return { came: 'answered', status: response.status, body: text === '' ? null : (JSON.parse(text) as unknown) };
    } catch {
      return { came: 'unknown' };
    }
  }

  /** Says it until it is answered: only what may be said twice. */
  async untilAnswered(method: string, path: string, body?: unknown): Promise<Extract<Came, { came: 'answered' }>> {
    for (;;) {
      const came = await this.say(method, path, body);
      if (came.came === 'answered' && came.status !== 401) return came;
      await wait(50);
    }
  }
}

/** What must be there at the end. */
export interface Written {
  /** By entry and field, all texts that it may hold: the last one that was acknowledged, and those after it of which nobody knows. */
  readonly cells: Map<string, Map<string, Set<string>>>;
  /** Groups of entries whose `group` field was always written as one block. */
  readonly groups: string[][];
  /** Texts of filled forms, each to stand exactly once. */
  readonly filled: Set<string>;
  /** Values of the list that were acknowledged; others may or may not be there. */
  readonly listed: Set<string>;
  acknowledged: number;
  unknown: number;
}

export const nothingWritten = (): Written => ({
  cells: new Map(),
  groups: [],
  filled: new Set(),
  listed: new Set(),
  acknowledged: 0,
  unknown: 0,
});

/** An edit goes by no version seen: what one writes is one's own. */
const anyVersion = 2_000_000_000;

export interface Place {
  readonly registerId: string;
  readonly formId: string;
  readonly listId: string;
}

/** Writes until `isOver`. */
export async function write(
  speaker: Speaker,
  { registerId, formId, listId }: Place,
  written: Written,
  isOver: () => boolean,
): Promise<void> {
  const own = Array.from({ length: 4 }, () => randomUUID());
  const at = `/registers/${registerId}/entries`;
  let number = 0;
  const next = (what: string) => `${what} ${own[0]!.slice(0, 8)} ${++number}`;
  const count = (came: Came) => {
    if (came.came === 'unknown') written.unknown++;
    else if (came.status < 300) written.acknowledged++;
  };
  const note = (entry: string, field: string, text: string, came: Came) => {
    count(came);
    const held = written.cells.get(entry)!.get(field) ?? new Set(['']);
    if (came.came === 'unknown') held.add(text);
    else if (came.status < 300) written.cells.get(entry)!.set(field, new Set([text]));
    if (came.came === 'unknown') written.cells.get(entry)!.set(field, held);
  };
  for (const entry of own) {
    written.cells.set(entry, new Map());
    const text = next('first');
    // An entry is begun under its own id: asked twice, it is there once.
    await speaker.untilAnswered('PUT', `${at}/${entry}`, { field: 'note', text });
    written.cells.get(entry)!.set('note', new Set([text]));
    written.acknowledged++;
  }
  written.groups.push(own);

  const acts: readonly (() => Promise<void>)[] = [
    async () => {
      const [entry, text] = [own[number % own.length]!, next('cell')];
      note(entry, 'note', text, await speaker.say('PATCH', `${at}/${entry}`, { field: 'note', text, version: anyVersion }));
    },
    async () => {
      const text = next('block');
      const came = await speaker.say('POST', `${at}/block`, { cells: own.map((entry) => ({ entry, field: 'group', text })) });
      for (const entry of own) note(entry, 'group', text, came);
    },
    async () => {
      const text = next('form');
      const body = { submission: randomUUID(), version: 1, answers: [{ field: 'note', text }] };
      const came = await speaker.untilAnswered('POST', `/forms/${formId}/entries`, body);
      count(came);
      if (came.status < 300) written.filled.add(text);
    },
    async () => {
      const text = next('value');
      const came = await speaker.say('POST', `/registers/${listId}/acts`, { acts: [{ act: 'insert', fields: ['value'], rows: [[text]] }] });
      count(came);
      if (came.came === 'answered' && came.status < 300) written.listed.add(text);
    },
  ];
  while (!isOver()) await acts[Math.floor(Math.random() * acts.length)]!();
}
