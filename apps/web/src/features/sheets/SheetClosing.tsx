// When the entries of a sheet are closed: by a condition, after so many days, or never; with how many that would be.
import { Box, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { closingSentence, type Closing } from '@dellum/core';
import type { Me, RegisterView } from '@dellum/contract';
import { useState } from 'react';
import { useClosingTrialQuery, useSetClosingMutation } from '../../data/buildApi.js';
import { errorWords } from '../../data/problem.js';
import { FormDialog } from '../../frame/FormDialog.js';
import { Select } from '../../frame/Select.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { number } from '../../frame/written.js';
import { FilterEditor } from '../filters/FilterEditor.js';
import { filterDto } from '../filters/filterDto.js';

const closingDto = ({ where, after }: Closing) => ({ where: filterDto(where), after: after && { ...after } });
const mostDays = 36_500;

export function SheetClosing({ register, me, close }: { register: RegisterView; me: Me; close(): void }) {
  const [where, setWhere] = useState(register.closing?.where ?? null);
  const [since, setSince] = useState(register.closing?.after?.field ?? '');
  const [days, setDays] = useState(String(register.closing?.after?.days ?? 30));
  const [set] = useSetClosingMutation();
  const attempt = useTry();
  const notice = useNotice();
  const dates = register.fields.filter(({ kind }) => kind === 'date');
  const isWhole = /^\d{1,5}$/u.test(days) && Number(days) <= mostDays;
  const closing: Closing = { where, after: since === '' ? null : { field: since, days: isWhole ? Number(days) : 0 } };
  const closes = where !== null || closing.after !== null;
  const save = async () => {
    if (since !== '' && !isWhole) return;
    if ((await attempt(set({ id: register.id, closing: closingDto(closing) }).unwrap())) === undefined) return;
    notice('done', closes ? closingSentence(closing, register.fields, me.house.locale) : `Entries of ${register.title} are never closed.`);
    close();
  };
  return (
    <FormDialog title={`When entries of ${register.title} are closed`} save={() => void save()} close={close}>
      <Stack gap="4">
        <Text color="inkSoft">
          Nobody but administrators changes or deletes a closed entry. Whoever changed it last may put it right for 15 minutes.
        </Text>
        <Stack gap="1.5">
          <Text fontWeight="medium">Closed where</Text>
          <FilterEditor label="Entries are closed where" filter={where} fields={register.fields} onChange={setWhere} />
        </Stack>
        {dates.length > 0 && (
          <Stack gap="1.5">
            <Text fontWeight="medium">{where ? 'Also so many days after' : 'Or so many days after'}</Text>
            <HStack>
              <Select
                label="The day from which is counted"
                value={since}
                options={[['', 'no day'], ...dates.map(({ key, heading }) => [key, heading] as const)]}
                onChoose={setSince}
              />
              {since !== '' && (
                <>
                  <Input
                    size="xs"
                    w="70px"
                    inputMode="numeric"
                    aria-label="Days after it"
                    aria-invalid={!isWhole}
                    value={days}
                    onChange={(event) => setDays(event.target.value.trim())}
                  />
                  <Text>days</Text>
                </>
              )}
            </HStack>
            {since !== '' && !isWhole && (
              <Text color="brick.fg" role="alert">
                Type a whole number of days, at most {number.format(mostDays)}.
              </Text>
            )}
          </Stack>
        )}
        {closes && (since === '' || isWhole) && <ClosingTrialWords id={register.id} closing={closing} />}
      </Stack>
    </FormDialog>
  );
}

function ClosingTrialWords({ id, closing }: { id: string; closing: Closing }) {
  const { currentData: trial, error } = useClosingTrialQuery({ id, closing: closingDto(closing) });
  return (
    <Box p="3" borderWidth="1px" borderColor="line" bg="paper" rounded="l3" role="status">
      {trial
        ? `${number.format(trial.closed)} of ${number.format(trial.entries)} ${trial.entries === 1 ? 'entry' : 'entries'} would be closed today.`
        : error
          ? errorWords(error)
          : 'Counting …'}
    </Box>
  );
}
