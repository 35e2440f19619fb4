// One's own account: another password, and where one is signed in.
import { Box, Button, Heading, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { ChangePasswordDto } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Page } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { moment } from '../../frame/written.js';
import { SecondFactor } from './SecondFactor.js';
import { useChangePasswordMutation, useEndOtherSessionsMutation, useMySessionsQuery } from '../../data/sessionApi.js';

export function AccountPage() {
  return (
    <Page title="My account" about="Your password, a second factor, and the browsers in which you are signed in.">
      <SimpleGrid columns={{ base: 1, lg: 2 }} gap="8" p="5" maxW="900px">
        <Stack gap="8">
          <Password />
          <SecondFactor />
        </Stack>
        <Sessions />
      </SimpleGrid>
    </Page>
  );
}

function Password() {
  const { register, fault, submit, problem, reset, formState } = useDtoForm(ChangePasswordDto, { current: '', password: '' });
  const [change] = useChangePasswordMutation();
  const notice = useNotice();
  const save = submit(async (values) => {
    await change(values).unwrap();
    reset();
    notice('done', 'Your password is changed. You stay signed in here, and nowhere else.');
  });
  return (
    <form noValidate aria-label="Change the password" onSubmit={(event) => void save(event)}>
      <Stack gap="3">
        <Heading as="h2" fontSize="md">
          Change the password
        </Heading>
        {problem && (
          <Text color="brick.fg" role="alert">
            {problem}
          </Text>
        )}
        <FormField
          label="Password you have now"
          type="password"
          autoComplete="current-password"
          fault={fault('current')}
          {...register('current')}
        />
        <FormField
          label="New password"
          type="password"
          autoComplete="new-password"
          help="At least 10 characters."
          fault={fault('password')}
          {...register('password')}
        />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Change the password
        </ActButton>
      </Stack>
    </form>
  );
}

function Sessions() {
  const { data: sessions = [] } = useMySessionsQuery();
  const [endOthers] = useEndOtherSessionsMutation();
  const attempt = useTry();
  const notice = useNotice();
  const end = async () => {
    if (
      (await attempt(
        endOthers()
          .unwrap()
          .then(() => true),
      )) === true
    )
      notice('done', 'You are signed out everywhere else.');
  };
  return (
    <Stack as="section" aria-label="Where you are signed in" gap="3">
      <Heading as="h2" fontSize="md">
        Where you are signed in
      </Heading>
      {sessions.map(({ id, here, begunAt, lastSeen, from }) => (
        <Box key={id} p="3" borderWidth="1px" borderColor={here ? 'growth.solid' : 'line'} bg="paper" rounded="l3">
          <Text fontWeight="bold">{here ? 'This browser' : 'Another browser'}</Text>
          <Text>
            since {moment.format(new Date(begunAt))}, last seen {moment.format(new Date(lastSeen))}
          </Text>
          <Text fontSize="xs" color="inkSoft" overflowWrap="anywhere">
            {from}
          </Text>
        </Box>
      ))}
      <Button size="sm" alignSelf="start" disabled={sessions.length < 2} onClick={() => void end()}>
        Sign out everywhere else
      </Button>
    </Stack>
  );
}
