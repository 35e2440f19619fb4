// Whatever is sent to whatever address, by whatever role: the answer is never that something went wrong on the server.
import { randomUUID } from 'node:crypto';
import type { BuildView } from '@dellum/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { entriesOf, openHouse, startServer, type House, type Running, type Visitor } from './house.js';

interface Schema {
  readonly $ref?: string;
  readonly type?: string;
  readonly format?: string;
  readonly enum?: readonly unknown[];
  readonly items?: Schema;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly minimum?: number;
  readonly oneOf?: readonly Schema[];
  readonly anyOf?: readonly Schema[];
  readonly allOf?: readonly Schema[];
}
interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: { readonly content: { readonly 'application/json'?: { readonly schema: Schema } } };
}
interface Description {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}

let running: Running;
let house: House;
let description: Description;
let ids: ReadonlyMap<string, readonly string[]>;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel', arrival: '2026-11-24' }, { visit: 'V2' }]);
  description = (await (await fetch(`${running.base}/api/openapi.json`)).json()) as Description;
  const build = await house.administrator.get<BuildView>('/build');
  const registers = build.sheets.flatMap((sheet) => sheet.registers);
  const entries = (await Promise.all(registers.map((register) => entriesOf(house.administrator, register)))).flat();
  ids = new Map([
    ['sheets', build.sheets.map(({ id }) => id)],
    ['registers', registers.map(({ id }) => id)],
    ['fields', registers.flatMap(({ fields }) => fields.map(({ id }) => id))],
    ['ranges', build.ranges.map(({ id }) => id)],
    ['catalogs', build.catalogs.map(({ id }) => id)],
    ['entries', entries.map(({ id }) => id)],
    ['records', entries.map(({ id }) => id)],
  ]);
});
afterAll(() => running.close());

const large = '9'.repeat(400);
/** What members, addresses and questions are given in place of what belongs there. */
const nasty: readonly unknown[] = [
  null, true, 0, -1, 1.5, 2 ** 31, 2 ** 53, 1e308, '', ' ', '\u0000', 'a\u0000b', '\ud800', 'x\udfff', '\u202e', '\u200b', '%', "'", '"', '\\', '$1', ';--',
  '__proto__', 'constructor', 'toString', 'hasOwnProperty', large, '2026-02-31', '0000-00-00', '2026-W01-1', '99999-01-01', '1e400', '-0', 'NaN',
  '00000000-0000-0000-0000-000000000000', 'x'.repeat(2000), [], [[]], [null], [{}], {}, { length: 1 }, [[], []], ['', null], [[['a']]], { toString: 'x' },
]; // prettier-ignore

const resolved = (schema: Schema): Schema =>
  schema.$ref ? resolved(description.components.schemas[schema.$ref.split('/').at(-1)!] ?? {}) : schema;

/** A body as the description asks for it, as far as it says; ids are those of the house. */
function bodyOf(given: Schema, name: string, pick: (of: number) => number, depth = 0): unknown {
  const schema = resolved(given);
  const one = schema.oneOf ?? schema.anyOf ?? schema.allOf;
  if (one) return bodyOf(one[pick(one.length)]!, name, pick, depth);
  if (schema.enum) return schema.enum[pick(schema.enum.length)];
  if (schema.type === 'array')
    return depth > 4 ? [] : Array.from({ length: 1 + pick(2) }, () => bodyOf(schema.items ?? {}, name, pick, depth + 1));
  if (schema.type === 'object' || schema.properties)
    return Object.fromEntries(
      Object.entries(schema.properties ?? {})
        .filter(([key]) => schema.required?.includes(key) || pick(3) > 0)
        .map(([key, of]) => [key, depth > 5 ? null : bodyOf(of, key, pick, depth + 1)]),
    );
  if (schema.type === 'integer' || schema.type === 'number') return (schema.minimum ?? 0) + pick(5);
  if (schema.type === 'boolean') return pick(2) === 0;
  if (schema.format === 'uuid' || /id$/iu.test(name)) return someId(name, pick);
  return ['pilot', 'visit', 'arrival', 'value', 'Tam Ossel', '2026-11-24', 'x'][pick(7)];
}

function someId(name: string, pick: (of: number) => number): string {
  const kind = [...ids.keys()].find((key) => `${name}s`.toLowerCase().includes(key.slice(0, -1)));
  const known = ids.get(kind ?? '') ?? [...ids.values()].flat();
  return known[pick(known.length)] ?? randomUUID();
}

/** The places of a body, each as the members that lead to it. */
function placesIn(value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([key, inner]) => placesIn(inner, [...path, key]))];
}

function withAt(value: unknown, [first, ...rest]: readonly (string | number)[], put: unknown): unknown {
  if (first === undefined) return put;
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<string | number, unknown>;
  copy[first] = withAt(copy[first], rest, put);
  return copy;
}

const wellFormed = (text: string) => text.replace(/\p{Surrogate}/gu, '?');

const ends = /session|password|admitted|factor|\/live|\/houses|taken-back/u;

it('answers no request with a fault of its own', async () => {
  const operations = Object.entries(description.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path: path.replace('/api/v1', ''), method: method.toUpperCase(), operation })),
  );
  const wanted = operations.filter(({ path, method }) => !ends.test(path) && method !== 'DELETE');
  const visitors: readonly Visitor[] = [house.administrator, house.steward, house.clerk, house.reader];
  const faults = new Set<string>();
  const rounds = Number(process.env['DELLUM_FUZZ'] ?? 1500);
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...wanted),
      fc.infiniteStream(fc.nat()),
      fc.constantFrom(...nasty),
      fc.nat(),
      async ({ path, method, operation }, numbers, value, at) => {
        const pick = (of: number) => (of === 0 ? 0 : numbers.next().value % of);
        const text = typeof value === 'string' ? value : JSON.stringify(value);
        const address = path.replace(/([a-z-]+)\/\{(\w+)\}/giu, (_, what: string, name: string) => {
          const known = ids.get(what) ?? [];
          if (pick(12) === 0) return `${what}/${encodeURIComponent(wellFormed(text))}`;
          return `${what}/${known[pick(known.length)] ?? (name === 'change' || name === 'edition' ? String(pick(3)) : randomUUID())}`;
        });
        const query = (operation.parameters ?? [])
          .filter((parameter) => parameter.in === 'query' && pick(4) > 0)
          .map(({ name }) => `${name}=${pick(3) === 0 ? encodeURIComponent(wellFormed(text)) : String(pick(40))}`);
        const schema = operation.requestBody?.content['application/json']?.schema;
        const body = schema && bodyOf(schema, '', pick);
        const places = placesIn(body);
        const sent = schema && pick(8) > 0 ? withAt(body, places[at % places.length]!, value) : body;
        const visitor = visitors[pick(8)] ?? house.administrator;
        const answer = await visitor.call(method, `${address}${query.length > 0 ? `?${query.join('&')}` : ''}`, sent);
        if (answer.status >= 500)
          faults.add(
            `${answer.status} ${method} ${path} ${visitor === house.administrator} ${query.join('&')} ${JSON.stringify(sent)?.slice(0, 600)}`,
          );
      },
    ),
    { numRuns: rounds, endOnFailure: true },
  );
  expect([...faults]).toEqual([]);
}, 600_000);

it('says what is wrong where something else stands in the place of a word', async () => {
  for (const kind of [{ toString: 'x' }, { toString: null }, [['typed']], 7, null, 'constructor', '__proto__'])
    for (const [method, path, body] of [
      ['POST', '/catalogs/trial', { parts: [{ kind, join: 'or' }], filter: null, distinct: 'value', order: { by: 'kept' } }],
      ['PUT', `/fields/${ids.get('fields')?.[0] ?? randomUUID()}/rule`, { kind }],
      ['POST', '/linked', { name: 'Elsewhere', settings: { kind } }],
    ] as const)
      expect((await house.administrator.call(method, path, body)).status).toBeLessThan(500);
});
