// People: add someone, set a role, reset a password, sign someone out.
import { Box, Button, Heading, HStack, NativeSelect, Stack, Table, Text } from '@chakra-ui/react';
import {
  AddPersonDto,
  ResetPasswordDto,
  roleMeaning,
  roles,
  type CatalogView,
  type PeopleGroup,
  type Person,
  type Role,
} from '@dellum/contract';
import { useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { FormButtons } from '../../frame/FormButtons.js';
import { FormField } from '../../frame/FormField.js';
import { Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Check } from '../../frame/Check.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useEntrustCatalogMutation } from '../../data/catalogsApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import {
  useAddPersonMutation,
  useAdmitPersonMutation,
  useChangePersonMutation,
  usePeopleQuery,
  useFactorRolesQuery,
  useRequireFactorMutation,
  useResetFactorMutation,
  useResetPasswordMutation,
  useSignOutPersonMutation,
} from '../../data/peopleApi.js';
import { Groups, GroupSlip } from './Groups.js';
import { moment } from '../../frame/written.js';

function AddPerson() {
  const { register, fault, submit, problem, reset, formState } = useDtoForm(AddPersonDto, {
    name: '',
    signIn: '',
    role: 'clerk',
    password: '',
  });
  const [add] = useAddPersonMutation();
  const notice = useNotice();
  const save = submit(async (values) => {
    await add(values).unwrap();
    reset();
    notice('done', `${values.name} can sign in as “${values.signIn}” now.`);
  });
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        Add someone
      </Heading>
      <Stack gap="3">
        {problem && (
          <Text color="brick.fg" role="alert">
            {problem}
          </Text>
        )}
        <FormField label="Name" fault={fault('name')} {...register('name')} />
        <FormField label="Sign-in name" autoComplete="off" fault={fault('signIn')} {...register('signIn')} />
        <Stack gap="1">
          <Text asChild fontWeight="medium">
            <label htmlFor="new-role">Role</label>
          </Text>
          <NativeSelect.Root size="sm">
            <NativeSelect.Field id="new-role" {...register('role')}>
              {roles.map((role) => (
                <option key={role} value={role}>
                  {role}, {roleMeaning[role]}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </Stack>
        <FormField
          label="First password"
          type="password"
          autoComplete="new-password"
          help="At least 10 characters; hand it over in person."
          fault={fault('password')}
          {...register('password')}
        />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Add
        </ActButton>
      </Stack>
    </form>
  );
}

function ResetPassword({ person, done }: { person: Person; done: () => void }) {
  const { register, fault, submit, problem, formState } = useDtoForm(ResetPasswordDto, { password: '' });
  const [reset] = useResetPasswordMutation();
  const [resetFactor] = useResetFactorMutation();
  const attempt = useTry();
  const notice = useNotice();
  const takeFactor = async () => {
    if (
      (await attempt(
        resetFactor(person.id)
          .unwrap()
          .then(() => true),
      )) !== true
    )
      return;
    notice('done', `${person.name} signs in with the password alone now, and is signed out everywhere.`);
    done();
  };
  const save = submit(async ({ password }) => {
    await reset({ id: person.id, password }).unwrap();
    notice('done', `${person.name} has a new password and is signed out everywhere.`);
    done();
  });
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        New password for {person.name}
      </Heading>
      <Stack gap="3">
        <FormField
          label="New password"
          type="password"
          autoComplete="new-password"
          autoFocus
          fault={fault('password') ?? problem}
          {...register('password')}
        />
        <FormButtons act="Set the password" sending={formState.isSubmitting} cancel={done} />
        {person.factor && (
          <Stack gap="2" pt="3" borderTopWidth="1px" borderColor="line">
            <Text>{person.name} signs in with a second factor. Where the app and the codes on paper are lost, take it away here.</Text>
            <Button size="sm" alignSelf="start" onClick={() => void takeFactor()}>
              Take the second factor away
            </Button>
          </Stack>
        )}
      </Stack>
    </form>
  );
}

/** The roles that need a second factor at the sign-in. */
function FactorRoles() {
  const { data: required } = useFactorRolesQuery();
  const [require] = useRequireFactorMutation();
  const attempt = useTry();
  if (!required) return null;
  const set = (role: Role, needs: boolean) =>
    void attempt(require({ roles: roles.filter((one) => (one === role ? needs : required.roles.includes(one))) }).unwrap());
  return (
    <Stack as="section" aria-label="Second factor" mt="6" gap="2" maxW="640px">
      <Heading as="h2" fontSize="md">
        Second factor
      </Heading>
      <Text color="inkSoft">
        Who must sign in with a code of an app besides the password. Whoever has none sets it up before anything else, at once.
      </Text>
      <HStack gap="5" wrap="wrap">
        {roles.map((role) => (
          <Check key={role} label={`every ${role}`} checked={required.roles.includes(role)} set={(needs) => set(role, needs)} />
        ))}
      </HStack>
    </Stack>
  );
}

/** The catalogs that a steward keeps, chosen on the person. */
function Entrusted({ person, done }: { person: Person; done: () => void }) {
  const { data: build } = useBuildQuery();
  const [entrust] = useEntrustCatalogMutation();
  const attempt = useTry();
  if (!build) return <Waiting />;
  const set = (catalog: CatalogView, keeps: boolean) => {
    const others = catalog.stewards.map(({ id }) => id).filter((id) => id !== person.id);
    void attempt(entrust({ id: catalog.id, people: keeps ? [...others, person.id] : others }).unwrap());
  };
  return (
    <Stack gap="3" role="region" aria-label={`Catalogs of ${person.name}`}>
      <SlipHead title={`Catalogs of ${person.name}`} about="Whose values this steward adds, mends and withdraws." close={done} />
      {build.catalogs.length === 0 && (
        <Text color="inkSoft">
          There are no catalogs yet. <Way to="/catalogs">Make one</Way>
        </Text>
      )}
      {build.catalogs.map((catalog) => (
        <Check
          key={catalog.id}
          label={catalog.title}
          checked={catalog.stewards.some(({ id }) => id === person.id)}
          set={(keeps) => set(catalog, keeps)}
        />
      ))}
    </Stack>
  );
}

/** What stands open beside the people; a group left out is a new one. */
type Opened =
  { readonly what: 'password' | 'catalogs'; readonly person: Person } | { readonly what: 'group'; readonly group: PeopleGroup | undefined };

export function PeoplePage() {
  const { data: people } = usePeopleQuery();
  const { data: me } = useMeQuery();
  const [change] = useChangePersonMutation();
  const [signOut] = useSignOutPersonMutation();
  const [admitPerson] = useAdmitPersonMutation();
  const [open, setOpen] = useState<Opened>();
  const { data: build } = useBuildQuery();
  const attempt = useTry();
  const notice = useNotice();
  if (!people) return <Waiting />;
  const close = () => setOpen(undefined);
  const slipOf = () => {
    switch (open?.what) {
      case 'password':
        return <ResetPassword key={open.person.id} person={open.person} done={close} />;
      case 'catalogs':
        return <Entrusted key={open.person.id} person={open.person} done={close} />;
      case 'group':
        return <GroupSlip key={open.group?.id ?? 'new'} group={open.group} people={people} close={close} />;
      case undefined:
        return <AddPerson />;
    }
  };
  const setRole = async (person: Person, role: Role) => {
    if (
      await attempt(
        change({ id: person.id, change: { role } })
          .unwrap()
          .then(() => true),
      )
    )
      notice('done', `${person.name} is ${role} now.`);
  };
  const admit = async (person: Person) => {
    const admitted = person.outSince !== null;
    if (
      (await attempt(
        admitPerson({ id: person.id, admitted })
          .unwrap()
          .then(() => true),
      )) !== true
    )
      return;
    notice(
      'done',
      admitted ? `${person.name} may enter the house again.` : `${person.name} is put out of the house; entries and history stay.`,
    );
  };
  const endSessions = async (person: Person) => {
    if (
      await attempt(
        signOut(person.id)
          .unwrap()
          .then(() => true),
      )
    )
      notice('done', `${person.name} is signed out.`);
  };
  return (
    <Page title="People" about="Who may enter this house, and what each may do." slip={slipOf()}>
      <Box p="5" overflowX="auto">
        <Table.Root size="sm" interactive={false}>
          <Table.Header>
            <Table.Row bg="transparent">
              {['Name', 'Sign-in name', 'Role', 'Signed in', ''].map((heading) => (
                <Table.ColumnHeader key={heading} color="inkSoft">
                  {heading || <Box srOnly>Acts</Box>}
                </Table.ColumnHeader>
              ))}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {people.map((person) => (
              <Table.Row key={person.id} bg="transparent" color={person.outSince ? 'inkSoft' : undefined}>
                <Table.Cell fontWeight="bold">
                  {person.name}
                  {person.id === me?.id && (
                    <Text as="span" color="inkSoft" fontWeight="normal">
                      {' '}
                      (you)
                    </Text>
                  )}
                </Table.Cell>
                <Table.Cell>
                  {person.signIn}
                  {person.factor && (
                    <Text fontSize="xs" color="inkSoft">
                      with a second factor
                    </Text>
                  )}
                </Table.Cell>
                <Table.Cell>
                  <NativeSelect.Root size="xs" w="150px">
                    <NativeSelect.Field
                      aria-label={`Role of ${person.name}`}
                      value={person.role}
                      onChange={(event) => void setRole(person, event.target.value as Role)}
                    >
                      {roles.map((role) => (
                        <option key={role}>{role}</option>
                      ))}
                    </NativeSelect.Field>
                    <NativeSelect.Indicator />
                  </NativeSelect.Root>
                </Table.Cell>
                <Table.Cell color="inkSoft">
                  {person.outSince
                    ? `put out, ${moment.format(new Date(person.outSince))}`
                    : person.sessions === 0
                      ? 'no'
                      : `in ${person.sessions} ${person.sessions === 1 ? 'browser' : 'browsers'}, last ${moment.format(new Date(person.lastSeen!))}`}
                </Table.Cell>
                <Table.Cell textAlign="end" whiteSpace="nowrap">
                  <Button mr="2" onClick={() => setOpen({ what: 'password', person })} aria-label={`Reset password of ${person.name}`}>
                    Reset password
                  </Button>
                  {person.role === 'steward' && (
                    <Button mr="2" onClick={() => setOpen({ what: 'catalogs', person })} aria-label={`Catalogs of ${person.name}`}>
                      Catalogs
                    </Button>
                  )}
                  <Button
                    mr="2"
                    disabled={person.id === me?.id}
                    onClick={() => void admit(person)}
                    aria-label={person.outSince ? `Let ${person.name} in again` : `Put ${person.name} out of the house`}
                  >
                    {person.outSince ? 'Let in again' : 'Put out'}
                  </Button>
                  <Button disabled={person.sessions === 0} onClick={() => void endSessions(person)} aria-label={`Sign out ${person.name}`}>
                    Sign out
                  </Button>
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
        <Groups groups={build?.groups ?? []} people={people} open={(group) => setOpen({ what: 'group', group })} />
        <FactorRoles />
      </Box>
    </Page>
  );
}
