// The languages in which rules are written. Their readers are the largest part of the core: where it is fetched over a line, they are
// fetched for rules that need them; elsewhere they are there from the start (`everyLanguage`).

export interface Pattern {
  /** Whether a text as a whole is so. */
  matches(text: string): boolean;
}

export interface Expression {
  /** Its value over what is given; throws where it cannot be computed. */
  run(given: Record<string, unknown>): unknown;
  /** What it gives, or `dyn` where that is not known before. */
  readonly type: string;
}

/** By language its reader, which throws, with words, where a text cannot be read. */
export interface Languages {
  readonly pattern: (text: string) => Pattern;
  readonly expression: (text: string) => Expression;
}
export type Language = keyof Languages;

const known: { -readonly [Name in Language]?: Languages[Name] } = {};

const fetchLanguage: { readonly [Name in Language]: () => Promise<Languages[Name]> } = {
  pattern: async () => (await import('./re2.js')).readPattern,
  expression: async () => (await import('./exactCel.js')).readCel,
};

/** Makes languages known. */
export const knowLanguages = (languages: Partial<Languages>): void => void Object.assign(known, languages);

/** The reader of a language; undefined while it is not known. */
export const readerOf = <Name extends Language>(name: Name): Languages[Name] | undefined => known[name];

/** Fetches the languages that are not known yet. Throws where one cannot be fetched; what is written in it is taken until then. */
export async function fetchLanguages(names: Iterable<Language>): Promise<void> {
  await Promise.all(
    [...new Set(names)].map(async (name) => {
      if (!known[name]) knowLanguages({ [name]: await fetchLanguage[name]() });
    }),
  );
}
