// A new access token: for which program, what it opens and for how long. The token itself is shown once.
import { Button, Stack } from '@chakra-ui/react';
import { monthsAfter } from '@dellum/core';
import { AccessTokenDto, type BuildView, type Me } from '@dellum/contract';
import { useState } from 'react';
import { useMakeTokenMutation } from '../../data/programsApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { FormField } from '../../frame/FormField.js';
import { ShownOnce } from '../../frame/ShownOnce.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useDtoForm } from '../../frame/useForm.js';
import { DayField } from '../../picker/DayField.js';
import { ChosenOfHouse } from './Chosen.js';

interface TokenSlipProps {
  readonly build: BuildView;
  readonly me: Me;
  close(): void;
}

export function TokenSlip({ build, me, close }: TokenSlipProps) {
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(AccessTokenDto, {
    name: '',
    writes: false,
    catalogs: [],
    registers: [],
    until: monthsAfter(me.house.today, 12),
  });
  const [make] = useMakeTokenMutation();
  const [token, setToken] = useState<string>();
  const save = submit(async (values) => setToken((await make(values).unwrap()).token));
  if (token !== undefined)
    return (
      <Stack gap="3" role="region" aria-label="The new token">
        <SlipHead
          title="The new token"
          about={`Give it to the program, and the address where it asks: ${window.location.origin}/api/v1/programs`}
          close={close}
        />
        <ShownOnce text={token} what="token" />
        <Button alignSelf="start" size="sm" autoFocus onClick={close}>
          Done
        </Button>
      </Stack>
    );
  return (
    <form noValidate aria-label="New access token" onSubmit={(event) => void save(event)}>
      <Stack gap="4">
        <SlipHead
          title="New access token"
          about="For one program. It opens what is chosen here, and nothing else of the house."
          close={close}
        />
        <FormField label="Which program it is for" autoFocus fault={fault('name') ?? problem} {...register('name')} />
        <DayField
          label="Last day"
          size="sm"
          from={me.house.today}
          day={watch('until')}
          fault={fault('until')}
          onDay={(day) => setValue('until', day, { shouldValidate: formState.isSubmitted })}
          onWrong={(text) => setValue('until', text)}
        />
        <ChosenOfHouse
          build={build}
          catalogs={{
            label: 'Catalogs that it reads',
            chosen: watch('catalogs'),
            fault: fault('catalogs'),
            choose: (ids) => setValue('catalogs', ids),
          }}
          sheets={{
            label: 'Sheets for which it has rows checked',
            chosen: watch('registers'),
            fault: fault('registers'),
            choose: (ids) => setValue('registers', ids),
          }}
        />
        <Check label="It enters data in these sheets, too" checked={watch('writes')} set={(writes) => setValue('writes', writes)} />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Make the token
        </ActButton>
      </Stack>
    </form>
  );
}
