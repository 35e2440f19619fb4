// What of a house is chosen for a program: catalogs and entry sheets that are there.
import { notFound, ProblemError } from '../problems/index.js';
import type { HouseBuild } from '../structure/structure.store.js';

export interface Chosen {
  readonly catalogs: readonly string[];
  readonly registers: readonly string[];
}

/** Throws where nothing is chosen, or what is not there. */
export function mustBeThere(build: HouseBuild, { catalogs, registers }: Chosen): void {
  if (catalogs.length + registers.length === 0) {
    const words = 'Choose at least one catalog or sheet.';
    throw new ProblemError('not-valid', words, { faults: { catalogs: words } });
  }
  if (catalogs.some((id) => !build.catalogs.has(id))) throw notFound('One of the catalogs');
  if (registers.some((id) => build.registers.get(id)?.source !== false)) throw notFound('One of the entry sheets');
}
