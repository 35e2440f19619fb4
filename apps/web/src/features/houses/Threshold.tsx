// The pages before one is signed in: sign in, or make the first house.
import { Alert, Box, Button, Stack, Text } from '@chakra-ui/react';
import { alertSlotRecipe } from '@chakra-ui/react/theme';
import { MakeHouseDto, SignInDto, type Threshold as ThresholdView } from '@dellum/contract';
import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api } from '../../data/api.js';
import { isProblem } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Card } from '../../frame/Card.js';
import { Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useAppDispatch } from '../../data/store.js';
import { useMakeHouseMutation, useSignInMutation, useThresholdQuery } from '../../data/sessionApi.js';

function Refusal({ words }: { words: string | undefined }) {
  if (!words) return null;
  return (
    <Alert.Root recipe={alertSlotRecipe} status="error" colorPalette="brick" size="sm">
      <Alert.Indicator />
      <Alert.Title>{words}</Alert.Title>
    </Alert.Root>
  );
}

function SignIn({ threshold, entered }: { threshold: ThresholdView; entered: () => Promise<void> }) {
  const { register, fault, submit, problem, setValue, formState } = useDtoForm(SignInDto, {
    signIn: '',
    password: '',
    ...(threshold.house && { house: threshold.house.key }),
  });
  const [signIn] = useSignInMutation();
  const [asksCode, setAsksCode] = useState(false);
  const enter = submit(async (values) => {
    try {
      await signIn(values).unwrap();
    } catch (error) {
      if (isProblem(error) && error.code === 'second-factor') setAsksCode(true);
      throw error;
    }
    await entered();
  });
  return (
    <Card title="Sign in" about={threshold.house?.name ?? 'Say which house you belong to.'}>
      <form noValidate onSubmit={(event) => void enter(event)}>
        <Stack gap="4">
          <Refusal words={problem} />
          {!threshold.house && (
            <FormField
              label="House"
              fault={fault('house')}
              help="Its short name, as in the address you were given."
              {...register('house')}
            />
          )}
          <FormField label="Sign-in name" autoComplete="username" autoFocus fault={fault('signIn')} {...register('signIn')} />
          <FormField label="Password" type="password" autoComplete="current-password" fault={fault('password')} {...register('password')} />
          {asksCode && (
            <FormField
              label="Code"
              autoComplete="one-time-code"
              autoFocus
              help="Six digits of your app, or a code on paper."
              fault={fault('code')}
              {...register('code')}
            />
          )}
          <ActButton variant="solid" type="submit" size="sm" loading={formState.isSubmitting}>
            Sign in
          </ActButton>
        </Stack>
      </form>
      {threshold.demoAccounts.length > 0 && (
        <Box mt="6" pt="4" borderTopWidth="1px" borderColor="line">
          <Text fontWeight="bold" mb="1">
            Demo accounts
          </Text>
          <Text color="inkSoft" mb="2">
            Everything in this house is made up. Choose whom to be:
          </Text>
          <Stack gap="1" align="stretch">
            {threshold.demoAccounts.map((account) => (
              <Button
                key={account.signIn}
                justifyContent="space-between"
                onClick={() => {
                  setValue('signIn', account.signIn);
                  setValue('password', account.password);
                  void enter();
                }}
              >
                <span>
                  {account.name}, {account.role}
                </span>
                <Text as="span" fontFamily="mono" color="inkSoft">
                  {account.signIn} / {account.password}
                </Text>
              </Button>
            ))}
          </Stack>
        </Box>
      )}
    </Card>
  );
}

function FirstHouse({ entered }: { entered: () => Promise<void> }) {
  const { register, fault, submit, problem, formState } = useDtoForm(MakeHouseDto, { house: '', name: '', signIn: '', password: '' });
  const [makeHouse] = useMakeHouseMutation();
  return (
    <Card title="Make your house" about="A house holds your people, sheets and catalogs. You become its first administrator.">
      <form
        noValidate
        onSubmit={(event) =>
          void submit(async (values) => {
            await makeHouse(values).unwrap();
            await entered();
          })(event)
        }
      >
        <Stack gap="4">
          <Refusal words={problem} />
          <FormField label="Name of the house" autoFocus fault={fault('house')} {...register('house')} />
          <FormField label="Your name" autoComplete="name" fault={fault('name')} {...register('name')} />
          <FormField label="Sign-in name" autoComplete="username" fault={fault('signIn')} {...register('signIn')} />
          <FormField
            label="Password"
            type="password"
            autoComplete="new-password"
            help="At least 10 characters."
            fault={fault('password')}
            {...register('password')}
          />
          <ActButton variant="solid" type="submit" size="sm" loading={formState.isSubmitting}>
            Make the house
          </ActButton>
        </Stack>
      </form>
    </Card>
  );
}

/** The house in the address is another threshold, also after being sent there. */
export function ThresholdPage() {
  const [search] = useSearchParams();
  return <Threshold key={search.get('house')} />;
}

function Threshold() {
  const [search] = useSearchParams();
  const { data: threshold, error, refetch } = useThresholdQuery(search.get('house') ?? undefined);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  useEffect(() => {
    if (!error) return;
    const timer = window.setTimeout(() => void refetch(), 1500);
    return () => window.clearTimeout(timer);
  }, [error, refetch]);
  if (!threshold) return <Waiting error={error && 'Dellum does not answer yet. This page tries again by itself.'} />;
  const entered = async () => {
    dispatch(api.util.resetApiState());
    await navigate(search.get('to') ?? '/sheets');
  };
  return threshold.empty ? <FirstHouse entered={entered} /> : <SignIn threshold={threshold} entered={entered} />;
}
