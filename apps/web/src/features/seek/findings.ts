// What the seek line can find: pages, sheets, forms, figures, lists, ranges, catalogs, fields, people, requests and values.
import { looseKey, matchKey } from '@dellum/core';
import { mayDesign, type BuildView, type CatalogItems, type FigureView, type Person, type RequestGroup, type Role } from '@dellum/contract';

export interface SeekHit {
  readonly what: string;
  readonly words: string;
  readonly where: string;
  readonly to: string;
}

export interface Seekable extends SeekHit {
  readonly key: string;
}

const seekable = (what: string, words: string, where: string, to: string): Seekable => ({
  what,
  words,
  where,
  to,
  key: looseKey(words) || matchKey(words),
});

/** What is fetched when somebody begins to seek. */
export interface Sought {
  readonly items: readonly CatalogItems[];
  readonly figures: readonly Pick<FigureView, 'id' | 'title'>[];
  readonly people: readonly Pick<Person, 'id' | 'name'>[];
  readonly requests: readonly RequestGroup[];
}

/** Everything that can be found, pages first, values last. */
export function seekables(build: BuildView, { items, figures, people, requests }: Sought, role: Role): Seekable[] {
  const designs = mayDesign(role);
  const open = [
    ['Sheets', '/sheets'],
    ['Forms', '/forms'],
    ['Records', '/records'],
    ['Figures', '/figures'],
    ['My account', '/account'],
    ...(role === 'reader' ? [] : [['Requests', '/requests']]),
  ];
  const pages = designs
    ? [
        ...open,
        ['Catalogs', '/catalogs'],
        ['Sources', '/sources'],
        ['Ranges', '/ranges'],
        ['Linked sources', '/linked'],
        ['Bindings', '/bindings'],
        ['Map', '/map'],
        ['Upkeep', '/upkeep'],
        ['House', '/house'],
        ['People', '/people'],
      ]
    : open;
  const sheets = build.sheets.map((sheet) =>
    seekable(
      sheet.kind === 'entry' ? 'sheet' : 'source sheet',
      sheet.title,
      '',
      sheet.kind === 'entry' ? `/sheets/${sheet.id}` : `/sources/${sheet.id}`,
    ),
  );
  const entered = new Set(build.sheets.flatMap(({ registers }) => registers.filter(({ enters }) => enters).map(({ id }) => id)));
  const forms = build.forms
    .filter(({ published, registerId }) => designs || (published !== null && entered.has(registerId)))
    .map(({ id, title }) => seekable('form', title, '', designs ? `/forms/${id}` : `/forms/${id}/fill`));
  const fields = build.sheets
    .filter(({ kind }) => kind === 'entry')
    .flatMap((sheet) =>
      sheet.registers.flatMap(({ fields: own }) =>
        own.map((field) => seekable('field', field.heading, sheet.title, `/sheets/${sheet.id}?field=${field.key}`)),
      ),
    );
  const sheetOf = new Map(build.sheets.flatMap((sheet) => sheet.registers.map((register) => [register.id, sheet] as const)));
  const ranges = build.ranges.map((range) => {
    const sheet = sheetOf.get(range.stretches[0]?.registerId ?? '');
    return seekable('range', range.name, sheet?.title ?? '', `/sources/${sheet?.id ?? ''}?range=${range.id}`);
  });
  const catalogs = designs ? build.catalogs.map((catalog) => seekable('catalog', catalog.title, '', `/catalogs/${catalog.id}`)) : [];
  const values = designs
    ? items.flatMap((catalog) =>
        catalog.items.map((item) =>
          seekable('value', item.label, catalog.title, `/catalogs/${catalog.id}?value=${encodeURIComponent(item.value)}`),
        ),
      )
    : [];
  const titleOf = new Map(build.catalogs.map(({ id, title }) => [id, title]));
  const others = [
    ...figures.map(({ id, title }) => seekable('figure', title, '', `/figures/${id}`)),
    ...people.map(({ name }) => seekable('person', name, '', '/people')),
    ...requests.map(({ catalogId, spellings }) =>
      seekable('request', spellings[0]?.value ?? '', titleOf.get(catalogId) ?? '', '/requests'),
    ),
  ];
  return [
    ...pages.map(([words, to]) => seekable('page', words!, '', to!)),
    ...sheets,
    ...forms,
    ...others,
    ...catalogs,
    ...ranges,
    ...fields,
    ...values,
  ];
}

const mostShown = 12;

/** What holds every word of the query; starts first, then in the order of the kinds. */
export function find(all: readonly Seekable[], query: string): SeekHit[] {
  const words = (looseKey(query) || matchKey(query)).split(' ').filter(Boolean);
  if (words.length === 0) return [];
  const found = all.filter(({ key }) => words.every((word) => key.includes(word)));
  const starts = (finding: Seekable) => (finding.key.startsWith(words[0]!) ? 0 : 1);
  return found
    .map((finding, order) => ({ finding, order }))
    .sort((a, b) => starts(a.finding) - starts(b.finding) || a.order - b.order)
    .slice(0, mostShown)
    .map(({ finding }) => finding);
}
