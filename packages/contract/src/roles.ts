// Who may do what, in one table that server and interface share.

export const roles = ['administrator', 'clerk', 'reader'] as const;
export type Role = (typeof roles)[number];

export const roleMeaning: { readonly [R in Role]: string } = {
  administrator: 'designs everything',
  clerk: 'enters data',
  reader: 'looks only',
};

export const mayEnter = (role: Role): boolean => role !== 'reader';
export const mayDesign = (role: Role): boolean => role === 'administrator';
