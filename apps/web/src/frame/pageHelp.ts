// What each page is for and its three commonest acts, for the help panel.

export interface PageHelp {
  readonly title: string;
  readonly about: string;
  readonly acts: readonly [string, string, string];
  /** The keys of the grid work here. */
  readonly grid?: boolean;
}

const pages: readonly (readonly [RegExp, PageHelp])[] = [
  [
    /^\/sheets\/./u,
    {
      title: 'A sheet',
      about: 'People type their entries here, a row each. Fields with a list or a calendar show a mark when you point at them.',
      acts: [
        'Type into the row “type to add”: it becomes the entry; Tab goes on to its next field.',
        'Click the mark in a cell, or press Alt and the down arrow, to choose from its list.',
        'Press the right mouse button, or the menu key, for what can be done with a cell.',
      ],
      grid: true,
    },
  ],
  [
    /^\/sheets$/u,
    {
      title: 'Sheets',
      about: 'All sheets in which people enter data.',
      acts: ['Open a sheet to enter data.', 'Create a sheet with its title.', 'Paste a table with headings: it becomes a sheet.'],
    },
  ],
  [
    /^\/sources\/./u,
    {
      title: 'A page of lists',
      about: 'Lists and tables side by side, each on its own. What fields offer comes from here.',
      acts: [
        'Type a heading, press Enter, and type the values below each other.',
        'Paste a table anywhere on the page: it becomes a table, or a list of each column.',
        'Make a catalog of a list, and choose the fields that use it.',
      ],
      grid: true,
    },
  ],
  [
    /^\/sources$/u,
    {
      title: 'Sources',
      about: 'The pages of lists. Clerks see only those that are shown to them.',
      acts: ['Open a page of lists.', 'Create one with its title.', 'Show it to clerks, or hide it, in its menu.'],
    },
  ],
  [
    /^\/catalogs\/./u,
    {
      title: 'A catalog',
      about: 'The allowed values of one kind, with how many entries hold each.',
      acts: [
        'Add a value, or click one to correct, merge, retire or colour it.',
        'Use it for fields.',
        'See its history, and take a change back.',
      ],
    },
  ],
  [
    /^\/catalogs$/u,
    {
      title: 'Catalogs',
      about: 'The central sets of allowed values.',
      acts: ['Open a catalog.', 'Create one from ranges.', 'See which fields use it.'],
    },
  ],
  [
    /^\/records/u,
    {
      title: 'Records',
      about: 'The same entries, one at a time, with what they name and what names them.',
      acts: ['Type words to find an entry.', 'Narrow by values at the left.', 'Open one, change it, or print it.'],
    },
  ],
  [
    /^\/forms/u,
    {
      title: 'Forms',
      about: 'Entries asked one field after another, by people of the house or by a link.',
      acts: ['Fill a form.', 'Lay one out by dragging its fields.', 'Publish it, and hand out a link.'],
    },
  ],
  [
    /^\/figures/u,
    {
      title: 'Figures',
      about: 'Entries counted and summed by their values.',
      acts: ['Choose what is counted, and by which field.', 'Click a number to see its entries.', 'Download the table or the picture.'],
    },
  ],
  [
    /^\/ranges/u,
    {
      title: 'Ranges',
      about: 'Every named range: where it lies, what it takes, what it leaves out.',
      acts: ['Find what a range misses, and cure it in one click.', 'Open the list it lies over.', 'See the catalogs it feeds.'],
    },
  ],
  [
    /^\/bindings/u,
    {
      title: 'Bindings',
      about: 'What every field takes.',
      acts: [
        'Find a field, or choose all that are shown.',
        'Let the chosen fields take a catalog.',
        'Copy the rule of one field to others.',
      ],
    },
  ],
  [
    /^\/upkeep/u,
    {
      title: 'Upkeep',
      about: 'What wants mending, each with its cure.',
      acts: ['Cure a finding.', 'List the entries outside.', 'Make a column a list.'],
    },
  ],
  [
    /^\/requests/u,
    { title: 'Requests', about: 'Values that clerks ask for.', acts: ['Accept a value.', 'Say what was meant.', 'Decline with a word.'] },
  ],
  [
    /^\/people/u,
    {
      title: 'People',
      about: 'Who may enter this house, and what each may do.',
      acts: ['Add somebody with a first password.', 'Give another role.', 'Put somebody out, or let them in again.'],
    },
  ],
  [
    /^\/house/u,
    {
      title: 'House',
      about: 'How the house is called and how it writes dates, numbers and amounts.',
      acts: ['Choose the language.', 'Choose the currency.', 'Look at the example beside it.'],
    },
  ],
  [
    /^\/account/u,
    {
      title: 'My account',
      about: 'Your password, a second factor, and where you are signed in.',
      acts: ['Change your password.', 'Set up a second factor.', 'Sign out everywhere else.'],
    },
  ],
  [
    /^\/linked/u,
    {
      title: 'Linked',
      about: 'Values from outside: files, folders, databases, services, expressions.',
      acts: ['Link a source.', 'Refresh it.', 'Use it in a catalog.'],
    },
  ],
  [
    /^\/ledger/u,
    {
      title: 'Ledger',
      about: 'Everything that was changed in the house, by whom and when. It is only added to.',
      acts: [
        'Narrow it by person, sheet, field, value or day.',
        'Follow a line to its entry.',
        'Download the lines that are shown, as CSV.',
      ],
    },
  ],
  [
    /^\/map/u,
    {
      title: 'Map',
      about: 'Which sources feed which catalogs, and which fields take them.',
      acts: ['Follow a line.', 'Click a box to open it.', 'Drag to move about.'],
    },
  ],
];

export const helpFor = (path: string): PageHelp | undefined => pages.find(([pattern]) => pattern.test(path))?.[1];
