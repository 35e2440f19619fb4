// What is said of an entry that came through a form.
import type { BuildView, EntryView } from '@dellum/contract';

/** "came through Waste declaration, version 2"; undefined for an entry that did not come through a form. */
export function formWords(build: BuildView, entry: EntryView | undefined): string | undefined {
  const { form } = entry ?? {};
  if (!form) return undefined;
  return `came through ${build.forms.find(({ id }) => id === form.id)?.title ?? 'a form'}, version ${form.version}`;
}
