// What of the house is chosen for a program: boxes to tick, one for each catalog or sheet.
import { Stack, Text } from '@chakra-ui/react';
import type { BuildView } from '@dellum/contract';
import type { ReactNode } from 'react';
import { Check } from '../../frame/Check.js';
import { Way } from '../../frame/Way.js';

interface Choosing {
  readonly label: string;
  readonly chosen: readonly string[];
  readonly fault: string | undefined;
  choose(ids: string[]): void;
}

/** Catalogs and sheets, by the ids of their registers. */
export function ChosenOfHouse({ build, catalogs, sheets }: { build: BuildView; catalogs: Choosing; sheets: Choosing }) {
  return (
    <>
      <Chosen {...catalogs} all={build.catalogs} none={<Way to="/catalogs">Make a catalog</Way>} />
      <Chosen {...sheets} all={sheetsToChoose(build)} none={<Way to="/sheets">Make a sheet</Way>} />
    </>
  );
}

interface ChosenProps extends Choosing {
  readonly all: readonly { readonly id: string; readonly title: string }[];
  /** What is shown where there is nothing to choose. */
  readonly none: ReactNode;
}

function Chosen({ label, none, all, chosen, fault, choose }: ChosenProps) {
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
const sheetsToChoose = (build: BuildView) =>
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
