// What cells of a spreadsheet of ISO/IEC 26300 are checked against (part 3, 9.4.5 table:content-validation), in the words of the other
// standard.
import type { Area, CheckType, FileCheck } from '@dellum/core';
import { mostChecks } from './models.js';

const prefix = /^(?:of|oooc|ooow|msoxl):=?/u;
const cells = String.raw`\$?[A-Za-z]{1,3}\$?\d{1,7}`;
const pointed = new RegExp(
  String.raw`^\[?\$?('(?:[^']|'')+'|[^.'$\[]*)\.(${cells})(?::(?:\$?(?:'(?:[^']|'')+'|[^.'$]*))?\.?(${cells}))?\]?$`,
  'u',
);

/** A reference in A1 notation, "Lists!$A$2:$A$9", of one as it is written here, "[$Lists.$A$2:.$A$9]"; anything else stays. */
export function referenceOf(written: string): string {
  const [, sheet, first, second] = pointed.exec(written.trim()) ?? [];
  if (first === undefined) return written.trim();
  return `${sheet === undefined || sheet === '' ? '' : `${sheet}!`}${first}${second === undefined ? '' : `:${second}`}`;
}

/** References within a formula, each on its own. */
export const formulaOf = (written: string): string =>
  written.replace(prefix, '').replaceAll(/\[[^\]]*\]/gu, (reference) => referenceOf(reference));

const operators: Readonly<Record<string, string>> = {
  '>=': 'greaterThanOrEqual',
  '<=': 'lessThanOrEqual',
  '>': 'greaterThan',
  '<': 'lessThan',
  '=': 'equal',
  '!=': 'notEqual',
};
const types: readonly (readonly [RegExp, CheckType])[] = [
  [/^cell-content-is-whole-number\(\)/u, 'whole'],
  [/^cell-content-is-decimal-number\(\)/u, 'decimal'],
  [/^cell-content-is-date\(\)/u, 'date'],
  [/^cell-content-text-length/u, 'textLength'],
];

/** Bounds are short; what is longer is made to take time. */
const longestCondition = 1000;

type Condition = Pick<FileCheck, 'type' | 'operator' | 'first' | 'second'>;

function conditionOf(written: string): Condition | undefined {
  const condition = written.replace(prefix, '').trim();
  const list = /^cell-content-is-in-list\((.*)\)$/su.exec(condition)?.[1];
  if (list !== undefined) return { type: 'list', operator: 'between', first: formulaOf(list), second: '' };
  const type = types.find(([begins]) => begins.test(condition))?.[1];
  if (!type || condition.length > longestCondition) return undefined;
  const between = /(?:cell-content|text-length)-is-between\(\s*([^,;]+)[,;]\s*([^)]+)\)\s*$/u.exec(condition);
  if (between) return { type, operator: 'between', first: between[1]!, second: between[2]! };
  const compared = /(?:cell-content|text-length)\(\)\s*(>=|<=|!=|>|<|=)\s*(.+)$/u.exec(condition);
  return compared ? { type, operator: operators[compared[1]!]!, first: compared[2]!, second: '' } : undefined;
}

interface Defined {
  readonly condition: string;
  readonly mayBeBlank: boolean;
  others: FileCheck['others'];
  hintTitle: string;
  hint: string;
  refusalText: string;
}

/** Gathers checks as they are defined, and the cells that name them, row by row. */
export class ChecksHeard {
  private readonly defined = new Map<string, Defined>();
  private now: Defined | undefined;
  /** By check: its areas, and of the same columns the one that came last. */
  private readonly areas = new Map<string, { readonly all: Area[]; readonly last: Map<string, number> }>();

  define(attributes: ReadonlyMap<string, string>): void {
    if (this.defined.size >= mostChecks) return;
    this.now = {
      condition: attributes.get('table:condition') ?? '',
      mayBeBlank: attributes.get('table:allow-empty-cell') !== 'false',
      others: 'refuse',
      hintTitle: '',
      hint: '',
      refusalText: '',
    };
    this.defined.set(attributes.get('table:name') ?? '', this.now);
  }

  help(attributes: ReadonlyMap<string, string>, words: string): void {
    if (!this.now || attributes.get('table:display') === 'false') return;
    [this.now.hintTitle, this.now.hint] = [(attributes.get('table:title') ?? '').slice(0, 60), words.slice(0, 400)];
  }

  error(attributes: ReadonlyMap<string, string>, words: string): void {
    if (!this.now) return;
    const type = attributes.get('table:message-type');
    if (attributes.get('table:display') === 'false' || type === 'information') this.now.others = 'accept';
    else if (type === 'warning') this.now.others = 'confirm';
    this.now.refusalText = words.slice(0, 400);
  }

  /** Cells that name a check; those of the row before are gone on with. */
  cells(name: string, area: Area): void {
    const known = this.areas.get(name) ?? { all: [], last: new Map<string, number>() };
    this.areas.set(name, known);
    const columns = `${area.left}:${area.right}`;
    const at = known.last.get(columns);
    const above = at === undefined ? undefined : known.all[at];
    if (above && above.bottom === area.top - 1) known.all[at!] = { ...above, bottom: area.bottom };
    else if (known.all.length < mostChecks) known.last.set(columns, known.all.push(area) - 1);
  }

  /** The checks of the sheet that ends here. */
  ofSheet(): FileCheck[] {
    const checks = [...this.areas].flatMap(([name, { all: areas }]): FileCheck[] => {
      const defined = this.defined.get(name);
      const condition = defined && conditionOf(defined.condition);
      if (!defined || !condition) return [];
      const { mayBeBlank, others, hintTitle, hint, refusalText } = defined;
      return [{ ...condition, areas, mayBeBlank, others, hintTitle, hint, refusalText }];
    });
    this.areas.clear();
    return checks;
  }
}
