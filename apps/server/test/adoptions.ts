// Proposals over HTTP as tests ask for them; the workbooks are written by libraries that share no code with Dellum (writeBook.py).
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { loadHouse } from '@dellum/demo';
import type { AdoptionView, BuildView, Problem, RegisterView } from '@dellum/contract';
import { expect } from 'vitest';
import { smallHouse, until, Visitor, type Running } from './house.js';

/** A house in which there is nothing but its people. */
export async function emptyHouse(running: Running): Promise<Visitor> {
  const blueprint = smallHouse([]);
  await loadHouse(running.database.kysely, { ...blueprint, sourceSheets: [], catalogs: [], entrySheets: [] });
  return new Visitor(running.base, { house: blueprint.key, role: 'administrator' });
}

export type Cell = string | number | { readonly day: string };
export type Rows = readonly (readonly Cell[])[];
interface BookSheet {
  readonly title: string;
  readonly rows: Rows;
  readonly merge?: readonly string[];
  readonly hidden?: boolean;
  readonly checks?: readonly object[];
}
export function book(name: string, sheets: readonly BookSheet[], names: Readonly<Record<string, string>> = {}): Buffer {
  const folder = mkdtempSync('/tmp/dellum-adopting-');
  try {
    const path = join(folder, name);
    execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'writeBook.py')], { input: JSON.stringify({ path, sheets, names }) });
    return readFileSync(path);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

export async function bring(visitor: Visitor, name: string, bytes: Buffer, proposal?: string) {
  const query = new URLSearchParams({ name, ...(proposal && { proposal }) }).toString();
  const response = await fetch(`${visitor.base}/api/v1/adoption-files?${query}`, {
    method: 'POST',
    headers: { cookie: await visitor.signedIn(), 'content-type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  return { status: response.status, body: (await response.json()) as AdoptionView & Problem };
}
export const view = (visitor: Visitor, id: string) => visitor.get<AdoptionView>(`/adoptions/${id}`);
export async function settled(visitor: Visitor, id: string): Promise<AdoptionView> {
  await until(async () => !['reading', 'applying'].includes((await view(visitor, id)).state));
  return view(visitor, id);
}
export async function proposed(visitor: Visitor, files: readonly (readonly [name: string, bytes: Buffer])[]): Promise<AdoptionView> {
  let id: string | undefined;
  for (const [name, bytes] of files) {
    const { status, body } = await bring(visitor, name, bytes, id);
    expect([status, body.detail]).toEqual([202, undefined]);
    id = body.id;
  }
  return settled(visitor, id!);
}
export async function applied(visitor: Visitor, id: string): Promise<AdoptionView> {
  expect((await visitor.call('POST', `/adoptions/${id}/applied`, {})).status).toBe(202);
  return settled(visitor, id);
}
export const mend = async (visitor: Visitor, id: string, what: string, dto: object): Promise<AdoptionView> => {
  const { status, body } = await visitor.call<AdoptionView & Problem>('PUT', `/adoptions/${id}/${what}`, dto);
  expect([status, body.detail]).toEqual([200, undefined]);
  return body;
};
export async function registersIn(visitor: Visitor): Promise<ReadonlyMap<string, RegisterView>> {
  const { sheets } = await visitor.get<BuildView>('/build');
  return new Map(sheets.flatMap(({ registers }) => registers.map((register) => [register.title, register] as const)));
}
