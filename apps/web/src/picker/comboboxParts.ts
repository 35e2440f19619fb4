// What a text input says of itself when a list hangs on it, after the combobox pattern of the W3C ARIA Authoring Practices Guide.
import type { InputHTMLAttributes } from 'react';

interface Combobox {
  /** The list; its options and the refusal are named after it. */
  readonly id: string;
  readonly label: string;
  readonly hasList: boolean;
  readonly listShown: boolean;
  /** The active option. */
  readonly at: number | undefined;
  readonly refused: boolean;
}

export const comboboxParts = ({ id, label, hasList, listShown, at, refused }: Combobox): InputHTMLAttributes<HTMLInputElement> => ({
  ...(hasList && { role: 'combobox', 'aria-expanded': listShown, 'aria-autocomplete': 'list' }),
  ...(listShown && { 'aria-controls': id }),
  ...(listShown && at !== undefined && { 'aria-activedescendant': `${id}-${at}` }),
  'aria-label': label,
  'aria-invalid': refused,
  ...(refused && { 'aria-describedby': `${id}-refusal` }),
  autoComplete: 'off',
  spellCheck: false,
});
