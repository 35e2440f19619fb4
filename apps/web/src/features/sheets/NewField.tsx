// New fields of an entry sheet: one after another, until one is done.
import { Button, Heading, NativeSelect, Stack, Text } from '@chakra-ui/react';
import { fieldKinds, kindLabel } from '@dellum/core';
import { MakeFieldDto } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { useState } from 'react';
import { useDtoForm } from '../../frame/useForm.js';
import { useMakeFieldMutation } from '../../data/buildApi.js';

export function NewField({ registerId, done }: { registerId: string; done: (key?: string) => void }) {
  const { register, fault, submit, problem, formState, reset, setFocus } = useDtoForm(MakeFieldDto, { heading: '', kind: 'text' });
  const [added, setAdded] = useState('');
  const [makeField] = useMakeFieldMutation();
  const save = submit(async (field) => {
    await makeField({ registerId, field }).unwrap();
    setAdded(field.heading);
    reset();
    setFocus('heading');
  });
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        New field
      </Heading>
      <Stack gap="3">
        <FormField label="Heading" autoFocus fault={fault('heading') ?? problem} {...register('heading')} />
        <Stack gap="1">
          <Text asChild fontWeight="medium">
            <label htmlFor="new-field-kind">It holds</label>
          </Text>
          <NativeSelect.Root size="sm">
            <NativeSelect.Field id="new-field-kind" {...register('kind')}>
              {fieldKinds.map((kind) => (
                <option key={kind} value={kind}>
                  {kindLabel(kind)}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
          <Text fontSize="xs" color="inkSoft">
            What it takes is set afterwards: click its heading.
          </Text>
        </Stack>
        <Stack direction="row">
          <ActButton variant="solid" type="submit" size="sm" loading={formState.isSubmitting}>
            Add the field
          </ActButton>
          <Button size="sm" onClick={() => done()}>
            {added === '' ? 'Cancel' : 'Done'}
          </Button>
        </Stack>
        {added !== '' && (
          <Text role="status" color="growth.fg">
            {added} is added. Type the heading of the next one, or be done.
          </Text>
        )}
      </Stack>
    </form>
  );
}
