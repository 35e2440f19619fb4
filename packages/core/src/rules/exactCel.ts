// The Common Expression Language (cel.dev, an open standard) over exact decimals: 10 * 1.19 is 11.90, as on paper. Numbers of
// fields and decimals that are written out are exact; what the language counts itself (sizes, positions) are its integers.
import { Environment, type ASTNode } from '@marcbachmann/cel-js';
import type { Decimal } from 'decimal.js';
import { Exact } from '../values/index.js';
import type { Expression } from './languages.js';

/** What is divided may go on for ever: two numbers are equal when so many digits are. */
const digits = 50;
const told = (number: Decimal): Decimal => number.toSignificantDigits(digits);

const exact = (value: Decimal | number | bigint): Decimal => (typeof value === 'object' ? value : new Exact(String(value)));

const operations: readonly (readonly [string, (a: Decimal, b: Decimal) => Decimal])[] = [
  ['+', (a, b) => a.plus(b)],
  ['-', (a, b) => a.minus(b)],
  ['*', (a, b) => a.times(b)],
  ['/', (a, b) => a.div(b)],
];
const comparisons: readonly (readonly [string, (a: Decimal, b: Decimal) => boolean])[] = [
  ['<', (a, b) => told(a).lessThan(told(b))],
  ['<=', (a, b) => told(a).lessThanOrEqualTo(told(b))],
  ['>', (a, b) => told(a).greaterThan(told(b))],
  ['>=', (a, b) => told(a).greaterThanOrEqualTo(told(b))],
  ['==', (a, b) => told(a).equals(told(b))],
];
const pairs = [
  ['exact', 'exact'],
  ['exact', 'int'],
  ['int', 'exact'],
  ['exact', 'double'],
  ['double', 'exact'],
] as const;

function exactEnvironment(): Environment {
  const environment = new Environment({ unlistedVariablesAreDyn: true, homogeneousAggregateLiterals: false });
  environment.registerType('exact', { ctor: Exact });
  type Operand = Decimal | number | bigint;
  for (const [left, right] of pairs) {
    for (const [sign, operate] of operations)
      environment.registerOperator(`${left} ${sign} ${right}: exact`, (a: Operand, b: Operand) => operate(exact(a), exact(b)));
    // Equality holds both ways round once it is said one way.
    for (const [sign, compare] of comparisons)
      if (sign !== '==' || left === 'exact')
        environment.registerOperator(`${left} ${sign} ${right}: bool`, (a: Operand, b: Operand) => compare(exact(a), exact(b)));
  }
  environment.registerOperator('-exact: exact', (value: Decimal) => value.negated());
  environment.registerFunction('double(exact): double', (value: Decimal) => value.toNumber());
  environment.registerFunction('int(exact): int', (value: Decimal) => BigInt(value.truncated().toFixed()));
  environment.registerFunction('string(exact): string', (value: Decimal) => value.toFixed());
  return environment;
}

const environment = exactEnvironment();

/** Makes the decimals that are written out exact, and the whole numbers of lists, among which exact values are looked for. */
function makeExact(node: unknown, inList: boolean): void {
  if (Array.isArray(node)) return node.forEach((one) => makeExact(one, inList));
  if (typeof node !== 'object' || node === null || !('op' in node)) return;
  const { op, args } = node as ASTNode;
  if (op !== 'value') makeExact(args, op === 'list');
  else if (typeof args === 'number' || (inList && typeof args === 'bigint')) Object.assign(node, { args: exact(args) });
}

/** What goes through a list once for each of its values. */
const loops: ReadonlySet<unknown> = new Set(['all', 'exists', 'exists_one', 'map', 'filter']);

/** How deep the loops of an expression stand in one another, and how long the longest list is that it writes out. */
function reachOf(node: unknown): { readonly depth: number; readonly longest: number } {
  if (Array.isArray(node)) {
    const parts = node.map(reachOf);
    return { depth: Math.max(0, ...parts.map(({ depth }) => depth)), longest: Math.max(0, ...parts.map(({ longest }) => longest)) };
  }
  if (typeof node !== 'object' || node === null || !('op' in node)) return { depth: 0, longest: 0 };
  const { op, args } = node as ASTNode;
  const { depth, longest } = op === 'value' ? { depth: 0, longest: 0 } : reachOf(args);
  const loop = op === 'rcall' && Array.isArray(args) && loops.has(args[0]);
  return { depth: depth + (loop ? 1 : 0), longest: op === 'list' && Array.isArray(args) ? Math.max(longest, args.length) : longest };
}

/** Loops within loops go through so many values at most: an expression is judged in the blink of an eye, or not at all. */
const mostSteps = 20_000;
const deepestLoops = 3;

const lengthOf = (given: unknown): number => (Array.isArray(given) ? given.length : 0);

/** Reads an expression. Throws, with words, when it cannot be read. */
export function readCel(text: string): Expression {
  const parsed = environment.parse(text);
  makeExact(parsed.ast, false);
  const { depth, longest } = reachOf(parsed.ast);
  if (depth > deepestLoops) throw new Error(`its loops stand more than ${deepestLoops} deep in one another`);
  const checked = parsed.check();
  if (!checked.valid) throw new Error(checked.error?.message ?? 'its types do not fit');
  const run = (given: Record<string, unknown>): unknown => {
    const values = [given, given['entry']].flatMap((one) => Object.values((one ?? {}) as object));
    const list = Math.max(longest, ...values.map(lengthOf));
    if (list ** depth > mostSteps) throw new Error('the lists are too long for its loops');
    return parsed(given);
  };
  return { run, type: String(checked.type) };
}
