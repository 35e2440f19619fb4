// The accounts of the demo house. They are made up, and shown on the demo's sign-in page only.
import type { Threshold } from '@dellum/contract';

export const demoAccounts: Threshold['demoAccounts'] = [
  { name: 'Ines Quarrie', role: 'administrator', signIn: 'ines', password: 'lantern-basin' },
  { name: 'Tobin Ash', role: 'steward', signIn: 'tobin', password: 'ebb-and-flood' },
  { name: 'Mara Fenn', role: 'clerk', signIn: 'mara', password: 'heron-mole' },
  { name: 'Olek Dray', role: 'clerk', signIn: 'olek', password: 'timber-pond' },
  { name: 'Sela Wick', role: 'reader', signIn: 'sela', password: 'salt-quay' },
];
