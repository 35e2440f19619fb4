// Every component of the library that is used has its recipe in the theme, or brings it: without it, it would be drawn bare.
import { readdirSync, readFileSync } from 'node:fs';
import { recipes as allRecipes, slotRecipes as allSlotRecipes } from '@chakra-ui/react/theme';
import { describe, expect, it } from 'vitest';
import { recipes, slotRecipes } from '../src/theme/recipes.js';

const source = new URL('../src/', import.meta.url);
const files = readdirSync(source, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.tsx'))
  .map((file) => readFileSync(new URL(file, source), 'utf8'));
const used = new Set(
  files
    .flatMap((text) =>
      [...text.matchAll(/import \{([^}]*)\} from '@chakra-ui\/react'/gu)].flatMap(([, names]) =>
        names!.split(',').map((name) => name.trim()),
      ),
    )
    .filter((name) => /^[A-Z]\w*$/u.test(name))
    .map((name) => name[0]!.toLowerCase() + name.slice(1)),
);

/** Whether each place in which a component begins gives it its recipe. */
function bringsItsOwn(name: string): boolean {
  const begun = `<${name[0]!.toUpperCase()}${name.slice(1)}\\.Root`;
  const places = (pattern: string) => files.reduce((sum, text) => sum + [...text.matchAll(new RegExp(pattern, 'gu'))].length, 0);
  return places(`${begun}\\b`) > 0 && places(`${begun}\\s+recipe=\\{${name}SlotRecipe\\}`) === places(`${begun}\\b`);
}

describe('the theme', () => {
  it('has the recipe of every component that is used, but for those that bring their own', () => {
    const all = { ...allRecipes, ...allSlotRecipes };
    const wanted = [...used].filter((name) => name in all);
    expect(wanted.length).toBeGreaterThan(15);
    expect(wanted.filter((name) => !(name in recipes) && !(name in slotRecipes) && !bringsItsOwn(name))).toEqual([]);
  });
});
