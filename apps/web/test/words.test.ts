// The words on screen: those that were given up for plainer ones stand nowhere any more (docs/vocabulary.md).
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const root = join(import.meta.dirname, '..', 'src');
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.tsx'));

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
];

/** Everything of a file that people read: texts between tags, and texts given to attributes. */
function wordsIn(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(join(root, file), 'utf8'), ts.ScriptTarget.ES2023, true, ts.ScriptKind.TSX);
  const words: string[] = [];
  const visit = (node: ts.Node, inside: boolean): void => {
    if (ts.isJsxText(node)) words.push(node.text);
    const spoken = inside || ts.isJsxExpression(node) || (ts.isJsxAttribute(node) && /^(?:aria-label|title|about|label|placeholder|help|words|ask|act)$/u.test(node.name.getText(source)));
    if (spoken && (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) && /\s|^[A-Z]/u.test(node.text)) words.push(node.text);
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
