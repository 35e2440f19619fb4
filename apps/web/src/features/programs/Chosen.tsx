// What of the house is chosen for a program: boxes to tick, one for each catalog or sheet.
import { Stack, Text } from '@chakra-ui/react';
import type { BuildView } from '@dellum/contract';
import { Check } from '../../frame/Check.js';

interface ChosenProps {
  readonly label: string;
  /** What is shown where there is nothing to choose. */
  readonly none: React.ReactNode;
  readonly all: readonly { readonly id: string; readonly title: string }[];
  readonly chosen: readonly string[];
  readonly fault: string | undefined;
  choose(ids: string[]): void;
}

export function Chosen({ label, none, all, chosen, fault, choose }: ChosenProps) {
  return (
    <Stack as="fieldset" gap="1.5">
      <Text as="legend" fontWeight="bold">
        {label}
      </Text>
      {fault && (
        <Text color="brick.fg" role="alert">
          {fault}
        </Text>
      )}
      {all.length === 0 && none}
      {all.map(({ id, title }) => (
        <Check
          key={id}
          label={title}
          checked={chosen.includes(id)}
          set={(is) => choose(is ? [...chosen, id] : chosen.filter((one) => one !== id))}
        />
      ))}
    </Stack>
  );
}

/** The entry sheets, by the ids of their registers. */
export const sheetsToChoose = (build: BuildView) =>
  build.sheets.flatMap((sheet) => (sheet.kind === 'entry' ? sheet.registers.map(({ id }) => ({ id, title: sheet.title })) : []));

/** The titles of the catalogs and sheets that were chosen and are still there. */
export const titlesOf = (
  build: BuildView,
  { catalogs, registers }: { readonly catalogs: readonly string[]; readonly registers: readonly string[] },
) => ({
  catalogs: build.catalogs.filter(({ id }) => catalogs.includes(id)).map(({ title }) => title),
  sheets: sheetsToChoose(build)
    .filter(({ id }) => registers.includes(id))
    .map(({ title }) => title),
});
