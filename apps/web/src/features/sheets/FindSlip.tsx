// The slip that finds a text in what the cells show, and replaces it. What is replaced is judged like anything typed.
import { Button, HStack, Stack, Text } from '@chakra-ui/react';
import { replaced, type Search } from '@dellum/core';
import type { FieldView, RegisterView } from '@dellum/contract';
import { useState } from 'react';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useFoundQuery } from '../../data/entryActsApi.js';
import type { BlockActs } from './useBlockActs.js';
import { number } from '../../frame/written.js';

const cellWords = (count: number) => `${number.format(count)} ${count === 1 ? 'cell' : 'cells'}`;

interface FindSlipProps {
  readonly register: RegisterView;
  readonly fields: readonly FieldView[];
  readonly arranged: boolean;
  readonly mayEdit: boolean;
  readonly acts: BlockActs;
  value(field: FieldView, value: string): string;
  /** Goes to a row; false while only some entries are shown. */
  goTo(row: number, field: string): void;
  /** What the cell shows, and typing into it. */
  shownAt(row: number, field: string): string | undefined;
  typeAt(row: number, field: string, text: string): void;
  close(): void;
}

export function FindSlip({ register, fields, arranged, mayEdit, acts, value, goTo, shownAt, typeAt, close }: FindSlipProps) {
  const [search, setSearch] = useState<Search>({ find: '', whole: false, exact: false });
  const [by, setBy] = useState('');
  const [among, setAmong] = useState('');
  const [at, setAt] = useState<{ entry: string; row: number; field: string }>();
  const [working, setWorking] = useState(false);
  const own = among === '' ? fields : fields.filter(({ key }) => key === among);
  const asked = { search, fields: own.map(({ key }) => key), arranged, ...(at && { after: at.entry }) };
  const { currentData: found, error } = useFoundQuery({ registerId: register.id, asked }, { skip: search.find === '' });
  const change = (part: Partial<Search>) => {
    setSearch({ ...search, ...part });
    setAt(undefined);
  };
  const next = () => {
    if (!found?.next) return;
    setAt(found.next);
    goTo(found.next.row, found.next.field);
  };
  const replaceThis = () => {
    const shown = at && shownAt(at.row, at.field);
    const after = shown === undefined ? undefined : replaced({ does: 'replace', ...search, by }, shown);
    if (at && after !== undefined) typeAt(at.row, at.field, after);
    next();
  };
  const replaceAll = async () => {
    setWorking(true);
    await acts.replace(own, search, by);
    setWorking(false);
    setAt(undefined);
  };
  return (
    <Stack gap="3">
      <SlipHead title="Find and replace" about="in what the cells show, whole sheet" close={close} />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          next();
        }}
      >
        <Stack gap="3">
          <FormField label="Find" autoFocus value={search.find} onChange={(event) => change({ find: event.target.value })} />
          <Select
            label="Find in"
            value={among}
            options={[['', 'in all shown fields'], ...fields.map(({ key, heading }) => [key, `in ${heading}`] as const)]}
            onChoose={(key) => (setAmong(key), setAt(undefined))}
          />
          <Check label="the cell holds nothing else" checked={search.whole} set={(whole) => change({ whole })} />
          <Check label="capitals and accents as written" checked={search.exact} set={(exact) => change({ exact })} />
          <Stack role="status" gap="1">
            {error && <Text color="brick.fg">{errorWords(error)}</Text>}
            {search.find !== '' && found && (
              <Text fontWeight="bold">
                {found.cells === 0 ? 'Nothing holds this.' : `${cellWords(found.cells)} ${found.cells === 1 ? 'holds' : 'hold'} it.`}
              </Text>
            )}
            {found?.fields.map(({ field: key, cells, values }) => {
              const field = register.fields.find((known) => known.key === key)!;
              return (
                <Text key={key} color="inkSoft">
                  {field.heading}: {number.format(cells)} (
                  {values
                    .slice(0, 3)
                    .map((held) => value(field, held.value))
                    .join(', ')}
                  {values.length > 3 ? ' …' : ''})
                </Text>
              );
            })}
          </Stack>
          <Button variant="solid" type="submit" size="sm" alignSelf="start" disabled={!found?.next}>
            {at ? 'Go to the next one' : 'Go to the first one'}
          </Button>
          {mayEdit && (
            <>
              <FormField label="Replace by" value={by} onChange={(event) => setBy(event.target.value)} />
              <HStack wrap="wrap">
                <Button size="sm" disabled={!at} onClick={replaceThis}>
                  Replace this one
                </Button>
                <ActButton size="sm" loading={working} disabled={!found || found.cells === 0} onClick={() => void replaceAll()}>
                  Replace all{found && found.cells > 0 ? ` ${number.format(found.cells)}` : ''}
                </ActButton>
              </HStack>
              <Text fontSize="xs" color="inkSoft">
                What comes out is judged like anything typed; what is refused stays with its cell. You can undo all of it at once.
              </Text>
            </>
          )}
        </Stack>
      </form>
    </Stack>
  );
}
