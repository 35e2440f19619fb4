// Why an intake takes no file.
import { mayDesign, type Role } from '@dellum/contract';

interface Person {
  readonly name: string;
  readonly role: Role;
  /** May enter the house. */
  readonly isIn: boolean;
}

/** Whether nobody is there any more in whose name it stores; what to do then. */
export const leftBy = ({ name, role, isIn }: Person): string | undefined =>
  isIn && mayDesign(role)
    ? undefined
    : `It stores in the name of ${name}, who is no administrator here any more. Save it once more, and it goes on in your name.`;

/** Why it takes nothing by itself; undefined where it does. */
export const standsStill = ({ isOff, person }: { readonly isOff: boolean; readonly person: Person }): string | undefined =>
  isOff ? 'This intake is switched off.' : leftBy(person);

/** `open`: its files that are not settled. */
export const tooMany = (open: number): string =>
  `${open} of its files wait to be looked at. Further ones are taken when these are settled or forgotten.`;
