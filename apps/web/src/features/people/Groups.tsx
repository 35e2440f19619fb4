// Groups of people: who may look at a limited sheet, and who enters data in it, is said by them.
import { Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { GroupDto, mayDesign, type PeopleGroup, type Person } from '@dellum/contract';
import { useChangeGroupMutation, useDeleteGroupMutation, useMakeGroupMutation } from '../../data/peopleApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { Confirm } from '../../frame/Confirm.js';
import { FormField } from '../../frame/FormField.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';

interface GroupsProps {
  readonly groups: readonly PeopleGroup[];
  readonly people: readonly Person[];
  /** Opens a group; without one, a new one. */
  open(group?: PeopleGroup): void;
}

export function Groups({ groups, people, open }: GroupsProps) {
  return (
    <Stack as="section" aria-label="Groups" mt="6" gap="2" maxW="640px">
      <Heading as="h2" fontSize="md">
        Groups
      </Heading>
      <Text color="inkSoft">A sheet can be shown to some groups only. Which ones is said in the menu of the sheet.</Text>
      {groups.map((group) => (
        <HStack key={group.id} justify="space-between" borderTopWidth="1px" borderColor="line" pt="2">
          <Text overflowWrap="anywhere">
            <b>{group.name}</b>: {namesOf(group, people)}
          </Text>
          <Button flexShrink="0" aria-label={`Change the group ${group.name}`} onClick={() => open(group)}>
            Change
          </Button>
        </HStack>
      ))}
      <Button alignSelf="start" onClick={() => open()}>
        New group
      </Button>
    </Stack>
  );
}

const namesOf = (group: PeopleGroup, people: readonly Person[]): string =>
  people
    .filter(({ id }) => group.people.includes(id))
    .map(({ name }) => name)
    .join(', ') || 'nobody yet';

interface GroupSlipProps {
  /** Undefined for a new one. */
  readonly group: PeopleGroup | undefined;
  readonly people: readonly Person[];
  close(): void;
}

export function GroupSlip({ group, people, close }: GroupSlipProps) {
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(GroupDto, {
    name: group?.name ?? '',
    people: [...(group?.people ?? [])],
  });
  const [make] = useMakeGroupMutation();
  const [change] = useChangeGroupMutation();
  const [remove] = useDeleteGroupMutation();
  const attempt = useTry();
  const notice = useNotice();
  const members = watch('people');
  const save = submit(async (values) => {
    await (group ? change({ id: group.id, group: values }) : make(values)).unwrap();
    notice('done', `The group ${values.name} is saved.`);
    close();
  });
  const drop = async () => {
    if (!group || (await attempt(remove(group.id).unwrap())) === undefined) return;
    notice('done', `The group ${group.name} is deleted. Sheets that were shown to it alone are the administrators’ now.`);
    close();
  };
  return (
    <form noValidate aria-label={group ? `The group ${group.name}` : 'New group'} onSubmit={(event) => void save(event)}>
      <Stack gap="3">
        <SlipHead
          title={group ? group.name : 'New group'}
          about="Who belongs to it. Administrators see every sheet and need no group."
          close={close}
        />
        <FormField label="Name of the group" autoFocus fault={fault('name') ?? problem} {...register('name')} />
        <Stack as="fieldset" gap="2" aria-label="People of the group">
          {people
            .filter(({ role, id }) => !mayDesign(role) || members.includes(id))
            .map(({ id, name, role }) => (
              <Check
                key={id}
                label={`${name}, ${role}`}
                checked={members.includes(id)}
                set={(belongs) => setValue('people', belongs ? [...members, id] : members.filter((member) => member !== id))}
              />
            ))}
        </Stack>
        <HStack>
          <ActButton variant="solid" type="submit" size="sm" loading={formState.isSubmitting}>
            {group ? 'Save the group' : 'Make the group'}
          </ActButton>
          {group && (
            <Confirm
              ask="Delete the group"
              about={`${group.name} goes; its people stay. Sheets that were shown to it alone are the administrators’ then.`}
              act="Delete the group"
              onConfirm={() => void drop()}
            />
          )}
        </HStack>
      </Stack>
    </form>
  );
}
