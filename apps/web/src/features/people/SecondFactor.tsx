// One's own second factor: set up with an app, its codes on paper, given up again.
import { Box, Button, Code, Heading, HStack, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { FactorCodeDto, OwnPasswordDto, type FactorView, type NewFactor } from '@dellum/contract';
import { QRCodeSVG } from 'qrcode.react';
import { useState, type ReactNode } from 'react';
import { FormButtons } from '../../frame/FormButtons.js';
import { FormField } from '../../frame/FormField.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice } from '../../frame/useNotice.js';
import { exactMoment } from '../../frame/written.js';
import {
  useBeginFactorMutation,
  useConfirmFactorMutation,
  useGiveFactorUpMutation,
  useMyFactorQuery,
  useRenewCodesMutation,
} from '../../data/sessionApi.js';

/** What is being done: nothing, asking for the password to do something, showing a secret to an app, showing new codes for paper. */
type Step =
  | { readonly at: 'rest' }
  | { readonly at: 'password'; readonly to: 'set it up' | 'renew the codes' | 'give it up' }
  | { readonly at: 'app'; readonly made: NewFactor }
  | { readonly at: 'paper'; readonly codes: readonly string[] };

/** `done`: what comes after it is set up and the codes are kept; where it is left out, the state of it is shown. */
export function SecondFactor({ done }: { done?: () => void }) {
  const { data: view } = useMyFactorQuery();
  const [step, setStep] = useState<Step>({ at: 'rest' });
  if (!view) return null;
  const rest = () => setStep({ at: 'rest' });
  return (
    <Stack as="section" aria-label="Second factor" gap="3">
      <Heading as="h2" fontSize="md">
        Second factor
      </Heading>
      {step.at === 'rest' && <State view={view} ask={(to) => setStep({ at: 'password', to })} />}
      {step.at === 'password' && <WithPassword to={step.to} next={setStep} cancel={rest} />}
      {step.at === 'app' && <ShowToApp made={step.made} confirmed={(codes) => setStep({ at: 'paper', codes })} cancel={rest} />}
      {step.at === 'paper' && (
        <OnPaper
          codes={step.codes}
          kept={() => {
            rest();
            done?.();
          }}
        />
      )}
    </Stack>
  );
}

function State({ view, ask }: { view: FactorView; ask: (to: 'set it up' | 'renew the codes' | 'give it up') => void }) {
  if (view.since === null)
    return (
      <>
        <Text color="inkSoft">
          Besides your password, the sign-in asks for six digits that an app on your telephone shows. Any app for such codes will do.
        </Text>
        <Button size="sm" alignSelf="start" onClick={() => ask('set it up')}>
          Set up a second factor
        </Button>
      </>
    );
  return (
    <>
      <Text>
        You have one since {exactMoment.format(new Date(view.since))}. {view.codesLeft === 0 ? 'No codes' : view.codesLeft} on paper{' '}
        {view.codesLeft === 1 ? 'is' : 'are'} left.
        {view.required && ' The house asks you for it.'}
      </Text>
      <HStack wrap="wrap">
        <Button size="sm" onClick={() => ask('renew the codes')}>
          New codes for paper
        </Button>
        <Button size="sm" onClick={() => ask('set it up')}>
          Set up another app
        </Button>
        {!view.required && (
          <Button size="sm" onClick={() => ask('give it up')}>
            Remove it
          </Button>
        )}
      </HStack>
    </>
  );
}

function Refused({ children }: { children: ReactNode }) {
  return (
    <Text color="brick.fg" role="alert">
      {children}
    </Text>
  );
}

interface WithPasswordProps {
  readonly to: 'set it up' | 'renew the codes' | 'give it up';
  next(step: Step): void;
  cancel(): void;
}

function WithPassword({ to, next, cancel }: WithPasswordProps) {
  const { register, fault, submit, problem, formState } = useDtoForm(OwnPasswordDto, { password: '' });
  const [begin] = useBeginFactorMutation();
  const [renew] = useRenewCodesMutation();
  const [giveUp] = useGiveFactorUpMutation();
  const notice = useNotice();
  const go = submit(async (values) => {
    if (to === 'set it up') return next({ at: 'app', made: await begin(values).unwrap() });
    if (to === 'renew the codes') return next({ at: 'paper', codes: (await renew(values).unwrap()).codes });
    await giveUp(values).unwrap();
    notice('done', 'The sign-in asks for your password alone from now on.');
    cancel();
  });
  return (
    <form noValidate aria-label="Your password" onSubmit={(event) => void go(event)}>
      <Stack gap="3">
        {problem && <Refused>{problem}</Refused>}
        <FormField
          label="Your password"
          type="password"
          autoComplete="current-password"
          autoFocus
          fault={fault('password')}
          {...register('password')}
        />
        <FormButtons act="Continue" sending={formState.isSubmitting} cancel={cancel} />
      </Stack>
    </form>
  );
}

interface ShowToAppProps {
  readonly made: NewFactor;
  confirmed(codes: readonly string[]): void;
  cancel(): void;
}

function ShowToApp({ made, confirmed, cancel }: ShowToAppProps) {
  const { register, fault, submit, problem, formState } = useDtoForm(FactorCodeDto, { code: '' });
  const [confirm] = useConfirmFactorMutation();
  const save = submit(async (values) => confirmed((await confirm(values).unwrap()).codes));
  return (
    <form noValidate aria-label="Set up the app" onSubmit={(event) => void save(event)}>
      <Stack gap="3">
        <Text>Show this to the app, or type the letters and digits under it into the app.</Text>
        {/* Apps read dark on light alone, whatever the page is on. */}
        <Box bg="white" p="3" alignSelf="start" rounded="l2">
          <QRCodeSVG value={made.address} size={168} title="The secret, as a picture for the app" />
        </Box>
        <Code size="md" overflowWrap="anywhere" alignSelf="start">
          {made.secret.replaceAll(/(.{4})(?=.)/gu, '$1 ')}
        </Code>
        {problem && <Refused>{problem}</Refused>}
        <FormField
          label="Six digits that the app shows now"
          autoFocus
          inputMode="numeric"
          autoComplete="one-time-code"
          fault={fault('code')}
          {...register('code')}
        />
        <FormButtons act="Use this app" sending={formState.isSubmitting} cancel={cancel} />
      </Stack>
    </form>
  );
}

function OnPaper({ codes, kept }: { codes: readonly string[]; kept: () => void }) {
  const notice = useNotice();
  const copy = async () => {
    await navigator.clipboard.writeText(codes.join('\n'));
    notice('done', 'The codes are copied.');
  };
  return (
    <Stack gap="3" role="region" aria-label="Codes for paper">
      <Text>
        Write these codes down and keep them apart from the telephone. Each lets you in once where the app is lost. They are shown only now.
      </Text>
      <SimpleGrid columns={2} gap="1.5" maxW="300px">
        {codes.map((code) => (
          <Code key={code} size="md">
            {code}
          </Code>
        ))}
      </SimpleGrid>
      <HStack>
        <Button variant="solid" size="sm" onClick={kept}>
          I have kept them
        </Button>
        <Button size="sm" onClick={() => void copy()}>
          Copy
        </Button>
      </HStack>
    </Stack>
  );
}
