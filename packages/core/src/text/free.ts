// Names that nothing else has yet.
import { matchKey } from './keys.js';

/** The name itself where it is free, else with the first number that makes it so: "Harbour lists 2". */
export function freeAmong(name: string, taken: readonly string[]): string {
  const keys = new Set(taken.map(matchKey));
  if (!keys.has(matchKey(name))) return name;
  for (let number = 2; ; number++) if (!keys.has(matchKey(`${name} ${number}`))) return `${name} ${number}`;
}
