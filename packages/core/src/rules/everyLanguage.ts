// All languages are known from the start.
import { readCel } from './exactCel.js';
import { knowLanguages } from './languages.js';
import { readPattern } from './re2.js';

knowLanguages({ pattern: readPattern, expression: readCel });
