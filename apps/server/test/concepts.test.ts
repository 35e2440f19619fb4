// Lists of concepts (SKOS) come in: written by another library, by this house, by hand, and by those who mean harm.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { AdoptionView, ArchiveBrought, ArchiveLook, BuildView, CatalogItems, Problem } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lookAt } from './archiveFile.js';
import { openHouse, startServer, until, type House, type Running, type Visitor } from './house.js';

const folder = mkdtempSync('/tmp/dellum-concepts-');
let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, []);
});
afterAll(async () => {
  await running.close();
  rmSync(folder, { recursive: true });
});

async function brought(visitor: Visitor, bytes: Buffer): Promise<ArchiveLook> {
  const { body } = await lookAt(visitor, bytes);
  expect(body.detail).toBeUndefined();
  const ways = body.collisions.map(({ id }) => ({ id, way: 'beside' }));
  const { status, body: done } = await visitor.call<ArchiveBrought & Problem>('POST', '/archives/brought', { look: body.look, ways });
  expect([status, done.detail]).toEqual([200, undefined]);
  return body;
}
const catalogs = async (visitor: Visitor) => (await visitor.get<BuildView>('/build')).catalogs;
async function itemsOf(visitor: Visitor, title: string) {
  const { id } = (await catalogs(visitor)).find((catalog) => catalog.title === title)!;
  return (await visitor.get<CatalogItems>(`/catalogs/${id}/items`)).items;
}
const written = (format: string): Buffer => {
  const file = join(folder, format);
  execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'writeConcepts.py'), file, format]);
  return readFileSync(file);
};

const turtle = (text: string) => Buffer.from(`@prefix skos: <http://www.w3.org/2004/02/skos/core#> .\n${text}`);

describe('A list of concepts', () => {
  it.each([
    ['turtle', 'Berths'],
    ['json-ld', 'Berths 2'],
  ])('that another library wrote as %s is looked at, and becomes a catalog over a list', async (format, title) => {
    const visitor = house.administrator;
    const seen = await brought(visitor, written(format));
    expect([seen.name, seen.at, seen.counts.catalogs, seen.counts.rows, seen.counts.entries]).toEqual(['Berths', null, 1, 6, 0]);
    const items = await itemsOf(visitor, title);
    expect(items.map(({ path, value, label }) => [...path, value, label].join(' / ')).sort()).toEqual([
      'North / N1 / North berth 1',
      'North / N2 / North berth 2',
      'North / N3 / North berth 3',
      'North / North',
      'South / S1 / South berth 1',
      'South / S2 / South berth 2',
      'South / S3 / South berth 3',
      'South / South',
    ]);
    const named = (value: string) => items.find((item) => item.value === value)!;
    expect(named('South').otherNames).toEqual(['Süd']);
    expect(named('S1').otherNames).toEqual(['Platz 1s']);
    expect(named('S2')).toMatchObject({ validFrom: '2026-01-01', note: 'Dredged; "deep"', state: 'offered' });
    expect(named('S3').state).toBe('retired');
  });

  it.each(['turtle', 'jsonld'])('of this house as %s comes in beside itself as it is', async (format) => {
    const visitor = house.administrator;
    const own = house.catalog;
    const response = await fetch(`${running.base}/api/v1/catalogs/${own.id}/file?format=${format}`, {
      headers: { cookie: await visitor.signedIn() },
    });
    expect(response.status).toBe(200);
    const before = new Set((await catalogs(visitor)).map(({ id }) => id));
    await brought(visitor, Buffer.from(await response.arrayBuffer()));
    const made = (await catalogs(visitor)).find(({ id }) => !before.has(id))!;
    const plain = async (title: string) =>
      (await itemsOf(visitor, title)).map(({ path, value, label, otherNames, state }) => [path, value, label, otherNames, state]);
    expect(await plain(made.title)).toEqual(await plain(own.title));
  });

  it('with what cannot be stored, and with what is longer than a value, comes in without it', async () => {
    const visitor = house.administrator;
    const long = `${'x'.repeat(499)}😀`;
    const odd = turtle(
      `<urn:odd> a skos:ConceptScheme ; skos:prefLabel "Odd\\u0000 names" .
       <urn:a> a skos:Concept ; skos:inScheme <urn:odd> ; skos:notation "A\\u0000\\u001FB" ; skos:altLabel "other\\u0000" ; skos:note "n\\u001F" .
       <urn:long> a skos:Concept ; skos:inScheme <urn:odd> ; skos:notation "${long}" .
       <urn:%00x> a skos:Concept ; skos:inScheme <urn:odd> .`,
    );
    await brought(visitor, odd);
    const items = await itemsOf(visitor, 'Odd names');
    expect(items.map(({ value, otherNames, note }) => [value, otherNames, note])).toEqual([
      ['A B', ['other'], 'n'],
      ['x'.repeat(499), [], undefined],
      ['x', [], undefined],
    ]);
  });

  const jsonld = (held: unknown) => Buffer.from(JSON.stringify(held));
  it.each<[string, Buffer, RegExp]>([
    ['broken Turtle', turtle('<urn:a> skos:prefLabel "no end'), /cannot be read as Turtle/u],
    ['Turtle that breaks off', turtle('<urn:a> a skos:Concept ; skos:prefLabel "A"@en . <urn:b> skos:'), /cannot be read as Turtle/u],
    ['no concepts', turtle('<urn:a> <urn:b> <urn:c> .'), /no concept in the file/u],
    ['broken JSON-LD', Buffer.from('{"@context": {}, "@graph": ['), /cannot be read as JSON-LD|no concept/u],
    [
      'words that are explained elsewhere',
      jsonld({ '@context': 'http://127.0.0.1:9/context.jsonld', '@id': 'urn:a', '@type': 'Concept' }),
      /says elsewhere .http:/u,
    ],
    [
      'words that are explained on this computer',
      jsonld({ '@context': 'file:///etc/hostname', '@id': 'urn:a' }),
      /says elsewhere|cannot be read/u,
    ],
    ['JSON that is nested very deep', Buffer.from(`{"@context":${'{"a":'.repeat(60_000)}1${'}'.repeat(60_001)}`), /nested too deep/u],
    ['a list of a hundred thousand lists', turtle(`<urn:a> skos:broader ${'('.repeat(100_000)}`), /cannot be read/u],
  ])('%s is told in a sentence', async (_what, bytes, says) => {
    const { status, body } = await lookAt(house.administrator, bytes);
    expect([status, body.code]).toEqual([422, 'not-valid']);
    expect(body.detail).toMatch(says);
  });

  it('is not taken for a table, and is nothing for a clerk', async () => {
    const visitor = house.administrator;
    const response = await fetch(`${running.base}/api/v1/adoption-files?name=berths.ttl`, {
      method: 'POST',
      headers: { cookie: await visitor.signedIn(), 'content-type': 'application/octet-stream' },
      body: new Uint8Array(written('turtle')),
    });
    const { id } = (await response.json()) as { id: string };
    await until(async () => (await visitor.get<AdoptionView>(`/adoptions/${id}`)).state === 'unreadable');
    expect((await visitor.get<AdoptionView>(`/adoptions/${id}`)).why).toMatch(/list of concepts/u);
    expect((await lookAt(house.clerk, written('turtle'))).status).toBe(403);
  });
});
