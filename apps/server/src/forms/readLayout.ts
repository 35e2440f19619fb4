// From a layout as it came over HTTP to the one that is kept.
import { clean, sourceTextFault, storedLayout, type FormLayout } from '@dellum/core';
import type { FormLayoutDto } from '@dellum/contract';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { ProblemError } from '../problems/index.js';

/** A text of the form without its outer blanks; lines stay. */
function fit(text: string, input: string): string {
  const fault = text
    .split(/\r?\n/u)
    .map((line) => (line === '' ? undefined : sourceTextFault(line)))
    .find((found) => found !== undefined);
  if (fault) throw new ProblemError('not-valid', fault.message, { faults: { [input]: fault.message } });
  return text.trim();
}

/** A layout that names fields which are not there any more is kept, so that it can be mended. */
export function readLayout(build: HouseBuild, register: RegisterBuild, { intro, thanks, sections }: FormLayoutDto): FormLayout {
  const read: FormLayout = {
    intro: fit(intro, 'intro'),
    thanks: fit(thanks, 'thanks'),
    sections: sections.map((section) => ({
      ...section,
      heading: clean(fit(section.heading, 'heading')),
      help: fit(section.help, 'help'),
      where: section.where ?? null,
      fields: section.fields.map((one) => ({
        ...one,
        help: fit(one.help, 'help'),
        control: one.control ?? null,
        begins: one.begins ?? null,
        where: one.where ?? null,
      })),
    })),
  };
  return storedLayout(read, register.fields, build.locale);
}
