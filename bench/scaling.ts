// How many servers and databases a number of clerks needs, reckoned from what an edit was measured to cost: waiting lines, simulated.
import { percentile, print } from './measure.js';
import { erlangWait, placesFor, randomFrom, waits } from './queues.js';

/** Milliseconds of a processor. */
export interface Costs {
  readonly server: number;
  /** For each stream that hears the edit. */
  readonly told: number;
  readonly pooler: number;
  readonly database: number;
}

const clerks = 100_000;
const clerksAHouse = 10;
/** Seconds from one edit of somebody who enters all day to the next. */
const between = 6;
/** No more than a hundredth of the edits may wait longer for a server, or for a database; milliseconds. */
const longest = 100;
/** Processors of a database. */
const processors = 16;

/** Edits a second that the busiest of some servers gets, where each house has a server by its hash. */
function busiest(servers: number, houses: number): number {
  const random = randomFrom(11);
  const rates = new Float64Array(servers);
  for (let house = 0; house < houses; house++) rates[Math.floor(random() * servers)]! += clerksAHouse / between;
  return Math.max(...rates);
}

const waitsOf = (rate: number, mean: number): number => {
  // A server that gets more than it can do is never through.
  if ((rate * mean) / 1000 >= 1) return Infinity;
  return percentile([...waits({ rate, mean, places: 1 })], 0.99);
};

/** The fewest servers of one processor each whose busiest lets nobody wait for long. */
function serversFor(houses: number, mean: number): number {
  let servers = Math.ceil((((houses * clerksAHouse) / between) * mean) / 1000);
  while (waitsOf(busiest(servers, houses), mean) > longest) servers += Math.max(1, Math.floor(servers / 50));
  return servers;
}

/** The most houses that one server carries. */
function housesOf(mean: number): number {
  let houses = 1;
  while (waitsOf(((houses + 1) * clerksAHouse) / between, mean) <= longest) houses++;
  return houses;
}

export function reckon(costs: Costs): void {
  const rate = clerks / between;
  const served = costs.server + costs.told * clerksAHouse;
  const line = { rate: 2000, mean: 6, places: 14 };
  const simulated = waits(line);
  const mean = simulated.reduce((sum, wait) => sum + wait, 0) / simulated.length;
  print({ name: 'scaling.check', value: mean, unit: 'ms', against: "Erlang's formula for the same line", ratio: mean / erlangWait(line) });
  const said = `${clerks.toLocaleString('en-GB')} clerks in houses of ${clerksAHouse}, an edit each ${between} s; 99 of 100 wait less than ${longest} ms`;
  const inOne = housesOf(served);
  print({
    name: 'scaling.server',
    value: inOne * clerksAHouse,
    unit: 'clerks',
    against: `most that one server carries; ${served.toFixed(1)} ms an edit`,
    ratio: null,
  });
  print({ name: 'scaling.servers', value: serversFor(clerks / clerksAHouse, served), unit: 'servers', against: said, ratio: null });
  const databases = Math.ceil(placesFor({ rate, mean: costs.database }, longest) / processors);
  print({ name: 'scaling.databases', value: databases, unit: `databases of ${processors} processors`, against: said, ratio: null });
  const poolers = placesFor({ rate, mean: costs.pooler }, longest);
  print({ name: 'scaling.poolers', value: poolers, unit: 'poolers of one processor', against: said, ratio: null });
}
