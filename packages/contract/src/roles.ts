// Who may do what, in one table that server and interface share.

export const roles = ['administrator', 'steward', 'clerk', 'reader'] as const;
export type Role = (typeof roles)[number];

export const roleMeaning: { readonly [R in Role]: string } = {
  administrator: 'designs everything',
  steward: 'keeps the values of the catalogs in its care',
  clerk: 'enters data',
  reader: 'looks only',
};

export const mayEnter = (role: Role): boolean => role === 'administrator' || role === 'clerk';
export const mayDesign = (role: Role): boolean => role === 'administrator';

/** Whether someone keeps the values of a catalog: administrators of all, stewards of those in their care. */
export const keeps = (
  person: { readonly id: string; readonly role: Role },
  catalog: { readonly stewards: readonly { readonly id: string }[] },
): boolean => mayDesign(person.role) || (person.role === 'steward' && catalog.stewards.some(({ id }) => id === person.id));
/** Whether someone keeps values at all. */
export const mayKeep = (role: Role): boolean => mayDesign(role) || role === 'steward';
