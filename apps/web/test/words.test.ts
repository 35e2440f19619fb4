// The words on screen: those that were given up for plainer ones stand nowhere any more (docs/vocabulary.md).
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const root = join(import.meta.dirname, '..', '..', '..');
/** Screens speak, and so do the messages of the server and the sentences of the core. */
const files = ['apps/web/src', 'apps/server/src', 'packages/core/src', 'packages/contract/src'].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/u.test(file) && !file.includes('migrations'))
    .map((file) => join(folder, file)),
);

const givenUp: readonly (readonly [RegExp, instead: string])[] = [
  [/^(?:leave it|leave the rest)$/iu, 'Cancel'],
  [/^do it$/iu, 'the act and its object'],
  [/^do again$/iu, 'Redo'],
  [/^take back$/iu, 'Undo'],
  [/^(?:make it|set it|bring it in|keep this|bind it so|compose it so)$/iu, 'the act and its object'],
  [/\bgive it another (?:title|heading)\b/iu, 'Rename'],
  [/\bduplicate it\b/iu, 'Save as a copy'],
  [/\bwish(?:es)?\b/iu, 'request'],
  [/\bdeeds?\b/iu, 'act'],
  [/\bregisters?\b/iu, 'sheet, list or table'],
  [/\btenants?\b/iu, 'house'],
  [/\bclose the slip\b/iu, 'Close'],
  [/\b(?:arrange|begin|count) anew\b/iu, 'Refresh, Start over or Recount'],
  [/\bcan take (?:it|all of it) back\b|\bnothing (?:of yours )?to (?:take back|do again)\b/iu, 'Undo or Redo'],
  [/\bcarry(?:ing)? down\b/iu, 'Fill down'],
  [/\bseek line\b/iu, 'search line'],
  [/\bdoctor\b/iu, 'findings'],
];

/** A text that is a sentence: it begins with a capital or with what is put in, has several words, and ends like one. */
const isSentence = (text: string) => /^(?:[A-Z“…]).* .*[.?!:…]$/u.test(text);

/** Everything of a file that people read: texts between tags, texts given to attributes, and sentences wherever they stand. */
function wordsIn(file: string): string[] {
  const source = ts.createSourceFile(
    file,
    readFileSync(join(root, file), 'utf8'),
    ts.ScriptTarget.ES2023,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const words: string[] = [];
  const visit = (node: ts.Node, inside: boolean): void => {
    if (ts.isJsxText(node)) words.push(node.text);
    const spoken =
      inside ||
      ts.isJsxExpression(node) ||
      (ts.isJsxAttribute(node) && /^(?:aria-label|title|about|label|placeholder|help|words|ask|act)$/u.test(node.name.getText(source)));
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      if (isSentence(node.text) || (spoken && /\s|^[A-Z]/u.test(node.text))) words.push(node.text);
    } else if (ts.isTemplateExpression(node)) {
      const text = [node.head.text, ...node.templateSpans.map((span) => span.literal.text)].join('…');
      if (isSentence(text) || (spoken && / /u.test(text))) words.push(text);
    }
    ts.forEachChild(node, (child) => visit(child, spoken));
  };
  visit(source, false);
  return words.map((text) => text.replaceAll(/\s+/gu, ' ').trim()).filter((text) => text !== '');
}

describe('the words on screen', () => {
  const spoken = files.flatMap((file) => wordsIn(file).map((text) => ({ file, text })));
  it('are found by this test', () => expect(spoken.some(({ text }) => text === 'Create the sheet')).toBe(true));
  it.each(givenUp.map(([word, instead]) => [word.source, word, instead] as const))('%s is given up', (_name, word, instead) => {
    expect(spoken.filter(({ text }) => word.test(text)).map(({ file, text }) => `${file}: “${text}”; say ${instead}`)).toEqual([]);
  });
});
