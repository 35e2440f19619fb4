// All forms: those that can be filled, and for administrators those that are being laid out.
import { Box, Button, Heading, HStack, NativeSelect, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { MakeFormDto, mayDesign, type BuildView, type FormName, type Me } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { WayFirst } from '../../frame/ErrandBand.js';
import { Link, useNavigate } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { FormField } from '../../frame/FormField.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { entryRegisters } from '../sheets/useRegisterPlace.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useMakeFormMutation } from '../../data/formsApi.js';

export function FormsPage() {
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const designs = mayDesign(me.role);
  const forms = build.forms.filter(({ published }) => designs || published !== null);
  return (
    <Page title="Forms" about="Entries of a sheet, asked one at a time." slip={designs ? <NewForm build={build} /> : undefined}>
      {forms.length === 0 ? (
        <EmptyState title="No form yet">
          {designs
            ? 'Make one at the side: choose the sheet whose entries it asks for.'
            : 'An administrator lays out a form and publishes it; then it can be filled here.'}
        </EmptyState>
      ) : (
        <SimpleGrid columns={{ base: 1, md: 2, xl: 3 }} gap="4" p="5">
          {forms.map((form) => (
            <FormCard key={form.id} form={form} build={build} me={me} />
          ))}
        </SimpleGrid>
      )}
    </Page>
  );
}

function FormCard({ form, build, me }: { form: FormName; build: BuildView; me: Me }) {
  const register = entryRegisters(build).find(({ id }) => id === form.registerId);
  return (
    <Stack as="article" aria-label={form.title} gap="1" borderWidth="1px" borderColor="line" rounded="l3" p="4" bg="paper">
      <Heading as="h2" fontSize="md">
        {form.title}
      </Heading>
      <Text color="inkSoft">
        {form.published === null ? 'not published' : `version ${form.published}`}, {form.fields.length}{' '}
        {form.fields.length === 1 ? 'field' : 'fields'} of {register?.title ?? 'a sheet'}
      </Text>
      <HStack mt="2" gap="2">
        {form.published !== null && register?.enters && (
          <Button variant="solid" asChild>
            <Link to={`/forms/${form.id}/fill`} aria-label={`Fill ${form.title}`}>
              Fill it
            </Link>
          </Button>
        )}
        {mayDesign(me.role) && (
          <Button asChild>
            <Link to={`/forms/${form.id}`} aria-label={`Lay out ${form.title}`}>
              Lay it out
            </Link>
          </Button>
        )}
      </HStack>
    </Stack>
  );
}

function NewForm({ build }: { build: BuildView }) {
  const registers = entryRegisters(build);
  const { register, fault, submit, problem, formState } = useDtoForm(MakeFormDto, { registerId: registers[0]?.id ?? '', title: '' });
  const [make] = useMakeFormMutation();
  const navigate = useNavigate();
  const save = submit(async (form) => {
    const { id } = await make(form).unwrap();
    await navigate(`/forms/${id}`);
  });
  if (registers.length === 0)
    return (
      <Box color="inkSoft">
        A form asks for the entries of a sheet.{' '}
        <WayFirst to="/sheets" errand={{ what: 'lay out a form', to: '/forms' }}>
          Make a sheet
        </WayFirst>
      </Box>
    );
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        New form
      </Heading>
      <Stack gap="3">
        <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
        <Stack gap="1">
          <Text asChild fontWeight="medium">
            <label htmlFor="new-form-register">Its entries go to</label>
          </Text>
          <NativeSelect.Root size="sm">
            <NativeSelect.Field id="new-form-register" {...register('registerId')}>
              {registers.map(({ id, title }) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </Stack>
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Lay it out
        </ActButton>
      </Stack>
    </form>
  );
}
