// The lines of the ledger as sentences.
import type { LedgerKind, LedgerLine } from '@dellum/contract';

export const kindWords: { readonly [Kind in LedgerKind]: string } = {
  entries: 'Entries',
  lists: 'Lists, ranges and catalogs',
  rules: 'Rules',
  sheets: 'Sheets and fields',
  forms: 'Forms and figures',
  people: 'People and rights',
  'sign-ins': 'Signing in',
  house: 'The house',
};

/** What the sentences are made of, as the house writes it. */
export interface LineWords {
  /** The heading of the field; empty where it is none. */
  readonly field: string;
  /** In quotation marks, or "blank". */
  readonly from: string;
  readonly to: string;
  /** In quotation marks; empty where the line names nothing. */
  readonly about: string;
}

type Words = (line: LineWords) => string;
const did =
  (verb: string, what = ''): Words =>
  ({ about }) =>
    [verb, what, about].filter((word) => word !== '').join(' ');
const changed: Words = ({ field, from, to }) => `${field}: ${from} → ${to}`;

const sentences: Readonly<Record<string, Words>> = {
  'cell.written': changed,
  'cell.followed': (line) => `${changed(line)}, as it was corrected everywhere`,
  'entry.inserted': did('made the entry'),
  'entry.deleted': did('deleted the entry'),
  'entry.restored': did('brought back the entry'),
  'entries.moved': did('moved entries'),
  'entries.sorted': did('sorted the entries'),
  'entries.arranged': did('put the entries in another order'),
  'column.gathered': ({ field }) => `made ${field} a list`,
  'column.ungathered': ({ field }) => `made ${field} what it was before it was a list`,
  'carry.finished': ({ from, to }) => `all entries that held ${from} hold ${to} now`,
  'item.added': ({ to, about }) => `${to} is offered by ${about}`,
  'item.retired': ({ from, about }) => `${from} is retired in ${about}`,
  'item.corrected': ({ from, to, about }) => `${from} was corrected to ${to} in ${about}`,
  'item.gone': ({ from, about }) => `${from} is not offered by ${about} any more`,
  'item.kept': ({ to, about }) => `changed what is kept of ${to} in ${about}`,
  'catalog.made': did('made the catalog'),
  'catalog.changed': did('renamed or described the catalog'),
  'catalog.defined': did('composed the catalog', ''),
  'catalog.deleted': did('deleted the catalog'),
  'catalog.downloaded': did('downloaded the values of'),
  'catalog.entrusted': did('said who keeps the catalog'),
  'range.made': did('made the range'),
  'range.changed': did('changed the range'),
  'range.deleted': did('deleted the range'),
  'list.made': did('made the list'),
  'list.retitled': ({ from, to }) => `renamed the list ${from} to ${to}`,
  'list.deleted': did('deleted the list'),
  'table.made': did('made the table'),
  'values.told apart': ({ from, to }) => `said that ${from} and ${to} are two things`,
  'values.looked for again': ({ from, to }) => `lets ${from} and ${to} be found as look-alikes again`,
  'linked.made': did('linked the source'),
  'linked.changed': did('changed the linked source'),
  'linked.deleted': did('deleted the linked source'),
  'linked.read': did('read the linked source anew:'),
  'slip.left': did('cancelled a change that waited for an answer'),
  'rule.set': ({ field }) => `set the rule of ${field}`,
  'rule.cleared': ({ field }) => `cleared the rule of ${field}`,
  'sheet.made': did('made the sheet'),
  'sheet.changed': did('changed the sheet'),
  'sheet.limited': did('said who sees the sheet'),
  'sheet.closing': did('said when entries are closed in'),
  'sheet.downloaded': did('downloaded entries of the sheet'),
  'file.brought': did('stored what a file brought into'),
  'file.taken-back': did('undid what a file brought into'),
  'intake.made': did('made an intake for'),
  'intake.changed': did('changed an intake for'),
  'intake.off': did('switched off an intake for'),
  'intake.on': did('switched on an intake for'),
  'intake.ended': did('removed an intake for'),
  'sheet.duplicated': did('copied the sheet'),
  'sheet.deleted': did('deleted the sheet'),
  'field.made': did('made the field'),
  'field.changed': did('changed the field'),
  'field.deleted': did('deleted the field'),
  'field.kind': ({ field }) => `changed what ${field} holds`,
  'form.made': did('made the form'),
  'form.published': did('published the form'),
  'form.closed': did('closed the form'),
  'form.deleted': did('deleted the form'),
  'form.opened': did('made a link to the form'),
  'form.link.closed': did('closed a link to the form'),
  'figure.kept': did('saved the figure'),
  'figure.deleted': did('deleted the figure'),
  'person.added': did('added'),
  'person.changed': did('changed the name or the role of'),
  'person.password-reset': did('gave a new password to'),
  'person.password-changed': did('changed the own password'),
  'person.put-out': did('put out of the house:'),
  'person.let-in': did('let back into the house:'),
  'person.signed-out': did('signed out'),
  'person.factor-set': did('set up a second factor for'),
  'person.factor-dropped': did('removed the second factor of'),
  'person.factor-reset': did('took the second factor away from'),
  'person.codes-renewed': did('made new codes for paper for'),
  'token.made': did('made an access token for'),
  'token.ended': did('ended the access token of'),
  'webhook.made': did('made the webhook'),
  'webhook.ended': did('removed the webhook'),
  'webhook.on': did('turned on the webhook'),
  'webhook.off': did('switched off, since no message was taken: the webhook'),
  'program.entered': ({ about }) => `the program ${about} entered data`,
  'group.made': did('made the group'),
  'group.changed': did('changed the group'),
  'group.deleted': did('deleted the group'),
  'session.begun': did('signed in', 'from'),
  'session.refused': did('a sign-in was refused', 'from'),
  'house.factor': did('said who needs a second factor'),
  'archive.out': did('took the house out as an archive'),
  'archive.in': did('brought in the archive'),
  'files.adopted': did('made sheets and lists out of files:'),
  'files.taken-back': did('undid what was made out of files:'),
  'house.changed': did('changed how the house is called or writes'),
};

/** What was done, without who did it. An act that is not known by its words is shown by its name. */
export function lineWords({ act }: Pick<LedgerLine, 'act'>, words: LineWords): string {
  const sentence = sentences[act];
  if (sentence) return sentence(words);
  const [what = '', how = ''] = act.split('.');
  return [`${what}: ${how}`, words.about].filter((word) => word !== '').join(' ');
}
