// Why a value is or is not offered in a field: traced from the rule through catalog, part, range and row.
import { catalogAtLevel } from '../cascades/index.js';
import { filterClause, passes, type Item, type LookupStep } from '../catalogs/index.js';
import {
  closedHere,
  judge,
  listOf,
  meantIn,
  offerOf,
  ruleAs,
  ruleTakes,
  textOfItem,
  type CatalogRule,
  type JudgeContext,
  type JudgedField,
  type RuleNames,
} from '../rules/index.js';
import { parse, readTypedList, type FieldKind } from '../values/index.js';
import { lostInSources, type LostSources } from './sources.js';
import type { Trace, TraceStep } from './models.js';

/** The sources behind the rule's catalog, for whoever may see them. */
export type TraceSources = LostSources;

const foundBy: { readonly [S in LookupStep]: (item: Item) => string } = {
  value: (item) => `${item.value} is a value of the catalog.`,
  label: (item) => `It is how ${item.value} is shown.`,
  'other name': (item) => `It is another name of ${item.label}.`,
  'value differently written': (item) => `It is ${item.value}, written differently.`,
  'label differently written': (item) => `It is ${item.label}, written differently.`,
  'other name differently written': (item) => `It is another name of ${item.label}, written differently.`,
};

const through = (step: TraceStep['step'], words: string): TraceStep => ({ step, words, passed: true });
const lost = (step: TraceStep['step'], words: string): TraceStep => ({ step, words, passed: false });

/** Where an item comes from, one step a source. */
function originSteps(item: Item, sources: TraceSources | undefined): TraceStep[] {
  if (!sources) return [];
  return item.from.map((origin) => {
    const { by, id, rows } = origin;
    const name =
      by === 'range'
        ? `the range ${sources.names.range(id)}`
        : by === 'query'
          ? sources.names.register(id)
          : by === 'linked'
            ? `the linked source ${sources.names.linked(id)}`
            : by === 'catalog'
              ? `the catalog ${sources.names.catalog(id)}`
              : 'the values typed into the catalog';
    const at =
      rows.length === 0
        ? ''
        : `, ${rows.length === 1 ? 'row' : 'rows'} ${rows
            .slice(0, 3)
            .map(({ ordinal }) => ordinal + 1)
            .join(', ')}`;
    return { step: 'part', words: `It comes from ${name}${at}.`, passed: true, origin } satisfies TraceStep;
  });
}

const closedSteps = { retired: 'state', 'not yet valid': 'validity', 'no longer valid': 'validity', condition: 'fitting' } as const;

/** The values that a text names: of several each by itself. */
function namedIn(text: string, kind: FieldKind, { locale }: JudgeContext): readonly string[] {
  const named = kind === 'several values' ? readTypedList(text, locale).values : [];
  return named.length > 0 ? named : [text];
}

function catalogSteps(
  rule: CatalogRule,
  text: string,
  kind: FieldKind,
  context: JudgeContext,
  sources: TraceSources | undefined,
): TraceStep[] {
  const catalog = context.catalogs.get(rule.catalogId)!;
  const offer = offerOf(rule, context);
  if ('right' in offer) return [lost('parent', offer.message)];
  const found = meantIn(offer.offers, text, kind, context);
  if (found.found === 'ambiguous')
    return [
      lost(
        'catalog',
        `In ${catalog.title} it can mean ${found.items
          .slice(0, 3)
          .map(({ label }) => label)
          .join(' or ')}.`,
      ),
    ];
  if (found.found === 'nothing') {
    const elsewhere = meantIn(catalogAtLevel(catalog, rule.level), text, kind, context);
    if (elsewhere.found === 'item')
      return [
        lost('parent', `${catalog.title} has it, but not under ${rule.parents.map((key) => context.entry?.[key] ?? '').join(' › ')}.`),
      ];
    // Whoever sees no sources is told who can help.
    if (!sources) return [lost('catalog', `${catalog.title} does not have it. Whoever keeps ${catalog.title} can add it.`)];
    const parsed = parse(kind, text, context.locale, context.today);
    const source = lostInSources(catalog.title, parsed.ok ? parsed.value : text, sources);
    const at = { catalogId: catalog.id, composing: source.origin === undefined };
    return [{ ...lost('catalog', `${catalog.title} does not give it.`), at }, source];
  }
  const item = { ...found.item, value: textOfItem(found.item, kind, context.locale) };
  const steps = [through('catalog', foundBy[found.by](item)), ...originSteps(found.item, sources)];
  const closed = closedHere(rule, found.item, context);
  if (!closed) return steps;
  return [...steps, lost(closedSteps[closed.code as keyof typeof closedSteps] ?? 'state', closed.message)];
}

/**
 * The trace of a value in a field; `sources` adds the way into the sources. `closed`: what is said of the entry where it is closed to
 * whoever asks.
 */
export function explain(
  field: JudgedField,
  text: string,
  context: JudgeContext,
  names: RuleNames,
  sources?: TraceSources,
  closed?: string,
): Trace {
  const trace = explainOpen(field, text, context, names, sources);
  return closed === undefined ? trace : { ...trace, steps: [lost('entry', closed), ...trace.steps], offered: false };
}

function explainOpen(field: JudgedField, text: string, context: JudgeContext, names: RuleNames, sources?: TraceSources): Trace {
  const { rule } = field;
  const { held: _held, ...fresh } = context;
  const verdict = judge(field, { typed: text }, { ...fresh, suggest: false });
  const offered = verdict.verdict === 'taken';
  // What the catalog has said already is not said again.
  const ofCatalog = ruleAs('catalog', rule);
  const told = ofCatalog !== undefined && verdict.verdict === 'refused' && verdict.code === 'outside';
  const last = told
    ? ofCatalog.others === 'refuse'
      ? [lost('other values', 'Any other value is refused here.')]
      : [lost('other values', verdict.message)]
    : verdict.verdict === 'refused'
      ? [lost('other values', verdict.message)]
      : verdict.verdict === 'taken' && rule?.others === 'accept'
        ? [through('other values', 'Any other value is accepted here.')]
        : [];
  if (!rule) return { value: text, steps: [through('rule', `${field.heading} has no rule.`), ...last], offered };
  const steps: TraceStep[] = [];
  if (rule.where) {
    const holds = context.entry === undefined || passes(rule.where, (key) => context.entry?.[key] ?? '');
    steps.push(
      through(
        'condition',
        `The rule holds only where ${filterClause(rule.where, names.field)}; ${holds ? 'this entry is one' : 'this entry is none, so anything of its kind is taken'}.`,
      ),
    );
    if (!holds) return { value: text, steps: [...steps, ...last], offered };
  }
  steps.push(through('rule', `${field.heading} takes ${ruleTakes(rule, names)}.`));
  const list = listOf(field, context.catalogs, context.locale);
  const named = namedIn(text, field.kind, context);
  if (ofCatalog) steps.push(...named.flatMap((one) => catalogSteps(ofCatalog, one, field.kind, context, sources)));
  else if (list)
    steps.push(
      named.every((one) => meantIn(list, one, field.kind, context).found === 'item')
        ? through('catalog', 'It is in the list.')
        : lost('catalog', 'It is not in the list.'),
    );
  return { value: text, steps: [...steps, ...last], offered };
}
