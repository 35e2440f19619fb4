// Every component of the library that is used has its recipe in the theme: without it, it would be drawn bare.
import { readdirSync, readFileSync } from 'node:fs';
import { recipes as allRecipes, slotRecipes as allSlotRecipes } from '@chakra-ui/react/theme';
import { describe, expect, it } from 'vitest';
import { recipes, slotRecipes } from '../src/theme/recipes.js';

const source = new URL('../src/', import.meta.url);
const used = new Set(
  readdirSync(source, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.tsx'))
    .flatMap((file) =>
      [...readFileSync(new URL(file, source), 'utf8').matchAll(/import \{([^}]*)\} from '@chakra-ui\/react'/gu)].flatMap(([, names]) =>
        names!.split(',').map((name) => name.trim()),
      ),
    )
    .filter((name) => /^[A-Z]\w*$/u.test(name))
    .map((name) => name[0]!.toLowerCase() + name.slice(1)),
);

describe('the theme', () => {
  it('has the recipe of every component that is used', () => {
    const all = { ...allRecipes, ...allSlotRecipes };
    const wanted = [...used].filter((name) => name in all);
    expect(wanted.length).toBeGreaterThan(15);
    expect(wanted.filter((name) => !(name in recipes) && !(name in slotRecipes))).toEqual([]);
  });
});
