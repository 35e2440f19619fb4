// A list over HTTP: JSON, with the path to the list and, within each element, to the value and the label.
import type { LinkedRow } from '@dellum/core';
import type { ServiceSettingsDto } from '@dellum/contract';
import { distinctRows, needed, SourceFault, type LinkedAdapter, type ReadingContext } from './adapter.js';

const mostBytes = 20_000_000;
const mostMilliseconds = 10_000;
const firstRows = 5;

/** The address of a request: a path under the base address of a configured service, and nowhere else. */
function addressOf({ connection, address = '' }: ServiceSettingsDto, { reachable }: ReadingContext): URL {
  const name = needed(connection, 'Choose the service.');
  const base = reachable.services.get(name);
  if (base === undefined) throw new SourceFault(`There is no service “${name}” configured on the server.`);
  const root = new URL(base.endsWith('/') ? base : `${base}/`);
  const url = new URL(address.replace(/^\/+/u, ''), root);
  if (url.origin !== root.origin || !url.pathname.startsWith(root.pathname))
    throw new SourceFault('The path leads away from the configured service and is not asked for.');
  return url;
}

/** The body, read only as far as it is allowed to go. */
async function bodyOf(response: Response): Promise<string> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of response.body ?? []) {
    size += chunk.length;
    if (size > mostBytes) throw new SourceFault(`The service sends more than ${mostBytes / 1e6} MB; that is not read.`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

async function ask(settings: ServiceSettingsDto, context: ReadingContext): Promise<{ body: unknown; mark?: string } | 'unchanged'> {
  const url = addressOf(settings, context);
  try {
    const response = await fetch(url, {
      redirect: 'manual',
      signal: AbortSignal.timeout(mostMilliseconds),
      headers: { accept: 'application/json', ...(context.mark && { 'if-none-match': context.mark }) },
    });
    if (response.status === 304) return 'unchanged';
    if (response.status >= 300 && response.status < 400)
      throw new SourceFault('The service sends the request on to another address; that is not followed. Configure the address itself.');
    if (!response.ok) throw new SourceFault(`The service answers ${response.status}. Try again later, or ask whoever runs it.`);
    const type = response.headers.get('content-type') ?? '';
    if (!/\bjson\b/iu.test(type))
      throw new SourceFault(`The service sends ${type.split(';')[0] || 'something'} instead of JSON. Check the path.`);
    const mark = response.headers.get('etag');
    return { body: JSON.parse(await bodyOf(response)) as unknown, ...(mark && { mark }) };
  } catch (error) {
    if (error instanceof SourceFault) throw error;
    if (error instanceof SyntaxError) throw new SourceFault('The service sends JSON that cannot be read.');
    if (error instanceof Error && error.name === 'TimeoutError') throw new SourceFault('The service does not answer within 10 seconds.');
    throw new SourceFault('The service cannot be reached. Try again later, or ask whoever runs it.');
  }
}

/** What stands at a path of names parted by dots; the thing itself for a blank path. */
function at(thing: unknown, path: string): unknown {
  return path
    .split('.')
    .filter(Boolean)
    .reduce<unknown>(
      (found, name) => (typeof found === 'object' && found !== null ? (found as Record<string, unknown>)[name] : undefined),
      thing,
    );
}

const asText = (thing: unknown): string =>
  typeof thing === 'string' ? thing : typeof thing === 'number' || typeof thing === 'boolean' ? String(thing) : '';

function listOf(body: unknown, path: string): readonly unknown[] {
  const list = at(body, path);
  if (!Array.isArray(list))
    throw new SourceFault(
      path ? `There is no list at “${path}” in the answer.` : 'The answer is not a list. Say at which path the list stands.',
    );
  return list;
}

export const service: LinkedAdapter<'service'> = {
  kind: 'service',
  async read(settings, context) {
    const answer = await ask(settings, context);
    if (answer === 'unchanged') return answer;
    const { list = '', value = '', label = '', companions = [] } = settings;
    const rows = listOf(answer.body, list).map((element): LinkedRow => {
      const shown = label ? asText(at(element, label)) : '';
      const along = Object.fromEntries(
        companions.flatMap((path) => (asText(at(element, path)) ? [[path, asText(at(element, path))]] : [])),
      );
      return {
        value: asText(at(element, value)),
        ...(shown && { label: shown }),
        ...(Object.keys(along).length > 0 && { companions: along }),
      };
    });
    const kept = distinctRows(rows);
    if (rows.length > 0 && kept.length === 0)
      throw new SourceFault(
        value
          ? `No element of the list has a text at “${value}”.`
          : 'The elements of the list are no texts. Say at which path the value stands.',
      );
    return { rows: kept, ...(answer.mark && { mark: answer.mark }) };
  },
  async look(settings, context) {
    const answer = await ask(settings, { ...context, mark: null });
    if (answer === 'unchanged') return { columns: [], rows: [] };
    const elements = listOf(answer.body, settings.list ?? '').slice(0, firstRows);
    const columns = [
      ...new Set(elements.flatMap((element) => (typeof element === 'object' && element !== null ? Object.keys(element) : []))),
    ];
    return {
      columns,
      rows: elements.map((element) => (columns.length === 0 ? [asText(element)] : columns.map((column) => asText(at(element, column))))),
    };
  },
};
