// The person at the head of every page.
import type { Me } from '@dellum/contract';
import type { ReactNode } from 'react';

export interface PersonMenuProps {
  readonly me: Me;
  help(): void;
  /** Stands in for the menu until it is here. */
  readonly button?: ReactNode;
}
