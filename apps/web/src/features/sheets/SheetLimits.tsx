// Who may look at a sheet, enter data in it and download it: everybody by role, or some groups only.
import { HStack, RadioGroup, Stack, Text } from '@chakra-ui/react';
import type { BuildView, SheetGroup, SheetView } from '@dellum/contract';
import { useState } from 'react';
import { useLimitSheetMutation } from '../../data/buildApi.js';
import { Check } from '../../frame/Check.js';
import { FormDialog } from '../../frame/FormDialog.js';
import { Select } from '../../frame/Select.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { limitWords } from './limitWords.js';

type May = 'nothing' | 'look' | 'enter';

export function SheetLimits({ sheet, build, close }: { sheet: SheetView; build: BuildView; close(): void }) {
  const [limited, setLimited] = useState(sheet.limited);
  const [groups, setGroups] = useState<readonly SheetGroup[]>(sheet.groups);
  const [downloads, setDownloads] = useState(sheet.downloads);
  const [limit] = useLimitSheetMutation();
  const attempt = useTry();
  const notice = useNotice();
  const mayOf = (id: string): May => {
    const own = groups.find(({ groupId }) => groupId === id);
    return own === undefined ? 'nothing' : own.enters ? 'enter' : 'look';
  };
  const set = (id: string, may: May) =>
    setGroups([
      ...groups.filter(({ groupId }) => groupId !== id),
      ...(may === 'nothing' ? [] : [{ groupId: id, enters: may === 'enter' }]),
    ]);
  const save = async () => {
    if (!(await attempt(limit({ id: sheet.id, limits: { limited, groups: [...groups], downloads } }).unwrap()))) return;
    const who = limitWords({ ...sheet, limited, groups }, build) ?? `“${sheet.title}” is there for everybody.`;
    notice('done', downloads ? who : `${who} Only administrators download it.`);
    close();
  };
  return (
    <FormDialog title={`Who sees ${sheet.title}`} save={() => void save()} close={close}>
      <Stack gap="4">
        <RadioGroup.Root
          size="sm"
          aria-label={`Who sees ${sheet.title}`}
          value={limited ? 'groups' : 'everybody'}
          onValueChange={({ value }) => setLimited(value === 'groups')}
        >
          <Stack gap="2">
            {(
              [
                ['everybody', 'everybody in the house, as their roles allow'],
                ['groups', 'some groups only, and administrators'],
              ] as const
            ).map(([value, words]) => (
              <RadioGroup.Item key={value} value={value}>
                <RadioGroup.ItemHiddenInput />
                <RadioGroup.ItemIndicator borderColor="slate.border" />
                <RadioGroup.ItemText>{words}</RadioGroup.ItemText>
              </RadioGroup.Item>
            ))}
          </Stack>
        </RadioGroup.Root>
        {limited &&
          build.groups.map(({ id, name, people }) => (
            <HStack key={id} justify="space-between">
              <Text overflowWrap="anywhere">
                {name}, {people.length} {people.length === 1 ? 'person' : 'people'}
              </Text>
              <Select
                label={`What ${name} may do`}
                width="160px"
                value={mayOf(id)}
                options={[
                  ['nothing', 'does not see it'],
                  ['look', 'looks at it'],
                  ...(sheet.kind === 'entry' ? [['enter', 'enters data'] as const] : []),
                ]}
                onChoose={(may) => set(id, may as May)}
              />
            </HStack>
          ))}
        {limited && (
          <Text color="inkSoft">
            {build.groups.length === 0 ? 'There are no groups yet. ' : ''}
            <Way to="/people">{build.groups.length === 0 ? 'Make a group' : 'Change the groups'}</Way>
          </Text>
        )}
        {sheet.kind === 'entry' && <Check label="Whoever sees it may download it" checked={downloads} set={setDownloads} />}
      </Stack>
    </FormDialog>
  );
}
