// The person at the head of every page.
import type { Me } from '@dellum/contract';
import type { ReactNode } from 'react';

export interface PersonMenuProps {
  readonly me: Me;
  help(): void;
  /** Stands in for the menu until it is here. */
  readonly button?: ReactNode;
}

export const initials = (name: string) =>
  name
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 2)
    .toUpperCase();
