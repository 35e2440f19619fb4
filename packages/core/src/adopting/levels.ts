// Columns whose values determine one another, nearly: a berth its quay, an article its group and that its group of goods. Each such chain
// wants to be the levels of one catalog.

/** A column: a number for what each row holds in it; 0 for blank. All columns are equally long. */
export interface LevelColumn {
  readonly at: number;
  readonly values: ArrayLike<number>;
}
/** One column that determines another, but for some rows. */
export interface Dependence {
  readonly child: number;
  readonly parent: number;
  /** The rows, counted from 0, in which another parent stands than in most rows of the same child. */
  readonly contradicting: readonly number[];
}
/** A chain of columns, the outermost first, and what ties each to the one before it. */
export interface FoundLevels {
  readonly columns: readonly number[];
  readonly ties: readonly Dependence[];
}

/** So many rows may contradict, as a share of those in which both are filled. */
const tolerance = 0.02;
/** A child stands in so many rows on the average: what stands once determines everything. */
const leastUse = 3;
/** So many times more children than parents there are at least: what is one to one is another name, and no level. */
const leastBranching = 1.5;
/**
 * Of the rows that would be guessed wrongly without the child, so many are guessed rightly with it (Goodman and Kruskal's lambda, 1954).
 */
const leastLambda = 0.8;
/** So many rows are looked at before all are: most pairs of columns have nothing to do with one another. */
const sampled = 2000;

/** Rows from the first one on, every so many of them. */
interface Rows {
  readonly height: number;
  readonly step: number;
}

/** By value, how often it stands in some rows; blank is none. */
function countsIn({ values }: LevelColumn, { height, step }: Rows): Uint32Array {
  let most = 0;
  for (let row = 0; row < height; row += step) if (values[row]! > most) most = values[row]!;
  const counts = new Uint32Array(most + 1);
  for (let row = 0; row < height; row += step) counts[values[row]!]!++;
  counts[0] = 0;
  return counts;
}

/** Values that stand beside one another, as one number. */
const beside = (child: number, parent: number): number => child * 2 ** 26 + parent;

/** By child, the parent that stands beside it in most of some rows; 0 for one beside which none does. */
function parentsIn(child: LevelColumn, parent: LevelColumn, { height, step }: Rows): Uint32Array {
  const counts = new Map<number, number>();
  let last = 0;
  for (let row = 0; row < height; row += step) {
    const [value, over] = [child.values[row]!, parent.values[row]!];
    if (value > last) last = value;
    if (value === 0 || over === 0) continue;
    const both = beside(value, over);
    counts.set(both, (counts.get(both) ?? 0) + 1);
  }
  const [parents, most] = [new Uint32Array(last + 1), new Uint32Array(last + 1)];
  for (const [both, count] of counts) {
    const over = both % 2 ** 26;
    const value = (both - over) / 2 ** 26;
    if (count <= most[value]!) continue;
    most[value] = count;
    parents[value] = over;
  }
  return parents;
}

/** How a child determines a parent in some rows, or undefined where it does not. */
function tieIn(child: LevelColumn, parent: LevelColumn, rows: Rows): Dependence | undefined {
  const parents = parentsIn(child, parent, rows);
  const contradicting: number[] = [];
  const overs = new Uint32Array(countsIn(parent, rows).length);
  let both = 0;
  for (let row = 0; row < rows.height; row += rows.step) {
    const [value, over] = [child.values[row]!, parent.values[row]!];
    if (value === 0 || over === 0) continue;
    both++;
    overs[over]!++;
    if (parents[value] !== over) contradicting.push(row);
  }
  const guessed = both - overs.reduce((most, count) => Math.max(most, count), 0);
  if (contradicting.length > tolerance * both || guessed === 0) return undefined;
  return 1 - contradicting.length / guessed < leastLambda ? undefined : { child: child.at, parent: parent.at, contradicting };
}

/** The chains of columns that want to be levels. Costs a look at each cell, and at the rows of pairs that a sample does not rule out. */
export function findLevels(columns: readonly LevelColumn[]): FoundLevels[] {
  const height = columns[0]?.values.length ?? 0;
  const all: Rows = { height, step: 1 };
  const sample: Rows = { height, step: Math.ceil(height / sampled) };
  const known = columns.map((column) => {
    const counts = countsIn(column, all);
    return { column, distinct: counts.filter((count) => count > 0).length, filled: counts.reduce((sum, count) => sum + count, 0) };
  });
  const repeated = known.filter(({ distinct, filled }) => distinct >= 2 && filled >= leastUse * distinct);
  const ties = new Map<number, Dependence>();
  for (const { column: child, distinct } of repeated) {
    // The nearest parent is the one with the most values; those further out follow from it.
    const nearest = repeated
      .filter((other) => distinct >= leastBranching * other.distinct)
      .sort((one, other) => other.distinct - one.distinct);
    for (const { column: parent } of nearest) {
      const tie = tieIn(child, parent, sample) && tieIn(child, parent, all);
      if (!tie) continue;
      ties.set(child.at, tie);
      break;
    }
  }
  const parents = new Set([...ties.values()].map(({ parent }) => parent));
  return [...ties.keys()]
    .filter((at) => !parents.has(at))
    .map((innermost) => {
      const chain: Dependence[] = [];
      for (let tie = ties.get(innermost); tie; tie = ties.get(tie.parent)) chain.unshift(tie);
      return { columns: [chain[0]!.parent, ...chain.map(({ child }) => child)], ties: chain };
    });
}
