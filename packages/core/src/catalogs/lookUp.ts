// Which item a text means: O(1), by the precedence of the lookup steps.
import { clean, matchKey } from '../text/index.js';
import { lookupSteps, type Catalog, type Item, type Lookup, type LookupStep } from './models.js';

/** At one step an offered item goes before retired ones; two different offered ones are ambiguous. */
function preferOffered(items: readonly Item[]): readonly Item[] {
  const offered = items.filter((item) => item.state === 'offered');
  return offered.length > 0 ? offered : items;
}

/** Finds the item that a typed text means. */
export function lookUp(catalog: Catalog, text: string): Lookup {
  // Most of what is typed or pasted is a value as it stands; values are clean, so that nothing else need be looked at.
  const exact = catalog.index.get('value').get(text);
  if (exact?.length === 1) return { found: 'item', item: exact[0]!, by: 'value' };
  return lookUpBy(catalog, text, lookupSteps);
}

const byNames = lookupSteps.filter((step) => !step.startsWith('value'));

/** Finds the item that a text means by its label or another name: where values are stored otherwise than they are typed. */
export const lookUpName = (catalog: Catalog, text: string): Lookup => lookUpBy(catalog, text, byNames);

function lookUpBy(catalog: Catalog, text: string, steps: readonly LookupStep[]): Lookup {
  const cleaned = clean(text);
  const key = matchKey(text);
  for (const step of steps) {
    const found = catalog.index.get(step).get(step.endsWith('differently written') ? key : cleaned);
    if (!found) continue;
    const items = preferOffered(found);
    return items.length === 1 ? { found: 'item', item: items[0]!, by: step } : { found: 'ambiguous', items, by: step };
  }
  return { found: 'nothing' };
}

/** The item that has exactly this value, offered or retired. */
export function itemWithValue(catalog: Catalog, value: string): Item | undefined {
  return catalog.index.get('value').get(value)?.[0];
}
