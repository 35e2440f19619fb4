// Who may look at a sheet and enter data in it: by role, and where a sheet is limited to groups, by these.
import { mayDesign, mayEnter } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import type { HouseBuild, RegisterBuild, SheetBuild } from './structure.store.js';

type Person = Pick<Caller, 'id' | 'role'>;

function groupsOf({ groups }: HouseBuild, sheet: SheetBuild, person: Person, alsoToEnter: boolean): boolean {
  const allowed = new Set(sheet.groups.filter(({ enters }) => enters || !alsoToEnter).map(({ groupId }) => groupId));
  return groups.some(({ id, people }) => allowed.has(id) && people.includes(person.id));
}

/** Whether somebody may look at a sheet. Source sheets are the administrators' until they are shown. */
export function looksAt(build: HouseBuild, sheet: SheetBuild, person: Person): boolean {
  if (mayDesign(person.role)) return true;
  return (sheet.kind === 'entry' || sheet.shown) && (!sheet.limited || groupsOf(build, sheet, person, false));
}

/** Whether somebody may change what stands on a sheet. */
export function entersIn(build: HouseBuild, sheet: SheetBuild, person: Person): boolean {
  if (mayDesign(person.role)) return true;
  return sheet.kind === 'entry' && mayEnter(person.role) && (!sheet.limited || groupsOf(build, sheet, person, true));
}

const sheetOf = (build: HouseBuild, register: RegisterBuild | undefined): SheetBuild | undefined =>
  register && build.sheets.find(({ id }) => id === register.sheetId);

/** Whether a register is there for somebody. */
export function isOpen(build: HouseBuild, registerId: string, person: Person): boolean {
  const sheet = sheetOf(build, build.registers.get(registerId));
  return sheet !== undefined && looksAt(build, sheet, person);
}

/** The registers that are not there for somebody. */
export const closedTo = (build: HouseBuild, person: Person): ReadonlySet<string> =>
  new Set([...build.registers.keys()].filter((id) => !isOpen(build, id, person)));

/** The register, where it is there for whoever asks. */
export function registerOf(build: HouseBuild, registerId: string, caller: Person): RegisterBuild {
  if (!isOpen(build, registerId, caller)) throw notFound('This register');
  return build.registers.get(registerId)!;
}

/** Whether somebody may take a register out as a file. */
export function downloads(build: HouseBuild, registerId: string, person: Person): boolean {
  const sheet = sheetOf(build, build.registers.get(registerId));
  return sheet !== undefined && looksAt(build, sheet, person) && (mayDesign(person.role) || sheet.downloads);
}

/** The register, where whoever asks may take it out as a file. */
export function downloadedRegister(build: HouseBuild, registerId: string, caller: Person): RegisterBuild {
  const register = registerOf(build, registerId, caller);
  if (!downloads(build, registerId, caller))
    throw new ProblemError('not-allowed', `Only administrators download ${register.title}. Ask one of them for the file.`);
  return register;
}

/** The entry register, where whoever asks enters data in it. What stands on a source sheet changes by acts. */
export function enteredRegister(build: HouseBuild, registerId: string, caller: Person): RegisterBuild {
  const register = registerOf(build, registerId, caller);
  if (register.source) throw notFound('This entry sheet');
  if (!entersIn(build, sheetOf(build, register)!, caller))
    throw new ProblemError('not-allowed', `You may look at ${register.title}; others enter data in it. Ask an administrator of the house.`);
  return register;
}
