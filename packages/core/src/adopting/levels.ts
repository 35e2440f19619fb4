// Columns whose values determine one another, nearly: a berth its quay, an article its group and that its group of goods. Each such chain wants
// to be the levels of one catalog.

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
/** Of the rows that would be guessed wrongly without the child, so many are guessed rightly with it (Goodman and Kruskal's lambda, 1954). */
const leastLambda = 0.8;
/** So many rows are looked at before all are: most pairs of columns have nothing to do with one another. */
const sampled = 2000;

/** How often each value stands in some rows; blank is none. */
function countsIn({ values }: LevelColumn, rows: Iterable<number>): Map<number, number> {
  const counts = new Map<number, number>();
  for (const row of rows) {
    const value = values[row]!;
    if (value !== 0) counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  return counts;
}
const mostOf = (counts: ReadonlyMap<number, number>): number => [...counts.values()].reduce((most, count) => Math.max(most, count), 0);

/** The parent that stands beside each child in most of some rows. */
function parentsIn(child: LevelColumn, parent: LevelColumn, rows: Iterable<number>): ReadonlyMap<number, number> {
  const beside = new Map<number, Map<number, number>>();
  for (const row of rows) {
    const [value, over] = [child.values[row]!, parent.values[row]!];
    if (value === 0 || over === 0) continue;
    const counts = beside.get(value) ?? new Map<number, number>();
    beside.set(value, counts);
    counts.set(over, (counts.get(over) ?? 0) + 1);
  }
  return new Map([...beside].map(([value, counts]) => [value, [...counts].reduce((most, one) => (one[1] > most[1] ? one : most))[0]]));
}

/** How a child determines a parent in some rows, or undefined where it does not. */
function tieIn(child: LevelColumn, parent: LevelColumn, rows: readonly number[]): Dependence | undefined {
  const both = rows.filter((row) => child.values[row] !== 0 && parent.values[row] !== 0);
  if (both.length === 0) return undefined;
  const parents = parentsIn(child, parent, both);
  const contradicting = both.filter((row) => parents.get(child.values[row]!) !== parent.values[row]);
  const guessed = both.length - mostOf(countsIn(parent, both));
  if (contradicting.length > tolerance * both.length || guessed === 0) return undefined;
  return 1 - contradicting.length / guessed < leastLambda ? undefined : { child: child.at, parent: parent.at, contradicting };
}

/** The chains of columns that want to be levels. Costs a look at each cell, and at the rows of pairs that a sample does not rule out. */
export function findLevels(columns: readonly LevelColumn[]): FoundLevels[] {
  const height = columns[0]?.values.length ?? 0;
  const all = Array.from({ length: height }, (_, row) => row);
  const sample = all.filter((row) => row % Math.ceil(height / sampled) === 0);
  const known = columns.map((column) => {
    const counts = countsIn(column, all);
    return { column, distinct: counts.size, filled: [...counts.values()].reduce((sum, count) => sum + count, 0) };
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
