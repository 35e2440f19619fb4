// A new webhook: which program is told, where, and of what. What its messages are signed with is shown once.
import { Button, Stack, Text } from '@chakra-ui/react';
import { WebhookDto, type BuildView } from '@dellum/contract';
import { useState } from 'react';
import { useMakeWebhookMutation } from '../../data/programsApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { ShownOnce } from '../../frame/ShownOnce.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useDtoForm } from '../../frame/useForm.js';
import { ChosenOfHouse } from './Chosen.js';

interface WebhookSlipProps {
  readonly build: BuildView;
  readonly receivers: readonly string[];
  close(): void;
  /** Opens the messages of the new one. */
  look(id: string): void;
}

export function WebhookSlip({ build, receivers, close, look }: WebhookSlipProps) {
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(WebhookDto, {
    name: '',
    receiver: receivers.length === 1 ? receivers[0]! : '',
    catalogs: [],
    registers: [],
  });
  const [make] = useMakeWebhookMutation();
  const [made, setMade] = useState<{ id: string; secret: string }>();
  const save = submit(async (values) => setMade(await make(values).unwrap()));
  if (made)
    return (
      <Stack gap="3" role="region" aria-label="The new webhook">
        <SlipHead
          title="The new webhook"
          about="Give this to the program: by it messages are signed after Standard Webhooks, so that it knows whose they are."
          close={close}
        />
        <ShownOnce text={made.secret} what="secret" />
        <Button alignSelf="start" size="sm" autoFocus onClick={() => look(made.id)}>
          Go on to its messages
        </Button>
      </Stack>
    );
  const refused = fault('receiver');
  return (
    <form noValidate aria-label="New webhook" onSubmit={(event) => void save(event)}>
      <Stack gap="4">
        <SlipHead title="New webhook" about="A program is told when something of what is chosen here changes." close={close} />
        <FormField label="Which program it is for" autoFocus fault={fault('name') ?? problem} {...register('name')} />
        <Stack gap="1.5">
          <Text fontWeight="bold">Address that is told</Text>
          {refused && (
            <Text color="brick.fg" role="alert">
              {refused}
            </Text>
          )}
          <Select
            label="Address that is told"
            value={watch('receiver')}
            options={receivers.map((name) => [name, name] as const)}
            onChoose={(receiver) => setValue('receiver', receiver, { shouldValidate: formState.isSubmitted })}
          />
        </Stack>
        <ChosenOfHouse
          build={build}
          catalogs={{ label: 'Catalogs', chosen: watch('catalogs'), fault: fault('catalogs'), choose: (ids) => setValue('catalogs', ids) }}
          sheets={{ label: 'Sheets', chosen: watch('registers'), fault: fault('registers'), choose: (ids) => setValue('registers', ids) }}
        />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Make the webhook
        </ActButton>
      </Stack>
    </form>
  );
}
