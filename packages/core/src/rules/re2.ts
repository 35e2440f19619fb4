// Patterns are regular expressions in RE2 syntax, which are matched in linear time and cannot run away (Cox 2007).
import { RE2JS } from 're2js';
import type { Pattern } from './languages.js';

/** Reads a pattern. Throws, with words, when it cannot be read. */
export const readPattern = (text: string): Pattern => RE2JS.compile(text);
