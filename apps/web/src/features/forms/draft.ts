// What is typed into a form and not sent yet, kept in this browser. The submission goes with it, so that sending it twice
// stores one entry.
import type { Given } from '@dellum/core';
import { v4 as uuid } from 'uuid';

export interface FormDraft {
  readonly submission: string;
  /** By field, what was typed or chosen. */
  readonly given: Readonly<Record<string, Given>>;
  readonly confirmed: readonly string[];
}

const keyOf = (form: string): string => `dellum.form.${form}`;

export const emptyDraft = (): FormDraft => ({ submission: uuid(), given: {}, confirmed: [] });

/** The draft of a form in this browser; undefined where there is none that can be read. */
export function draftOf(form: string): FormDraft | undefined {
  try {
    const draft = JSON.parse(localStorage.getItem(keyOf(form)) ?? 'null') as Partial<FormDraft> | null;
    return draft && typeof draft.submission === 'string' && typeof draft.given === 'object' && Array.isArray(draft.confirmed)
      ? (draft as FormDraft)
      : undefined;
  } catch {
    return undefined;
  }
}

/** Keeps a draft; a browser that keeps nothing changes nothing for whoever fills the form. */
export function keepDraft(form: string, draft: FormDraft | undefined): void {
  try {
    if (draft) localStorage.setItem(keyOf(form), JSON.stringify(draft));
    else localStorage.removeItem(keyOf(form));
  } catch {
    return;
  }
}
