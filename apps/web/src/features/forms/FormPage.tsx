// Laying out a form: its fields in sections and columns, checked while it is made, tried at once, published as versions.
import { Box, Button, HStack, SegmentGroup, Text } from '@chakra-ui/react';
import { segmentGroupSlotRecipe } from '@chakra-ui/react/theme';
import {
  askedIn,
  catalogIdOf,
  controlOf,
  layoutFindings,
  lengthOfList,
  storedLayout,
  type Catalog,
  type Control,
  type FormField,
  type FormLayout,
} from '@dellum/core';
import type { BuildView, FillView, FormView, Me, RegisterView } from '@dellum/contract';
import { Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { errorWords, isProblem } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { Confirm } from '../../frame/Confirm.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { entryRegisters } from '../sheets/useRegisterPlace.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { FillForm } from './FillForm.js';
import { FormStrip } from './FormStrip.js';
import { useCloseFormMutation, useDeleteFormMutation, useFormQuery, usePublishFormMutation } from '../../data/formsApi.js';
import { LayoutCanvas, type Selected } from './LayoutCanvas.js';
import { LayoutSlip } from './LayoutSlip.js';
import { useLaying, type Laying } from './useLaying.js';
import { WholeForm } from './WholeForm.js';

export function FormPage() {
  const { formId = '' } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  const { currentData: form, error: failed, refetch } = useFormQuery(formId, { refetchOnMountOrArgChange: true });
  const [round, setRound] = useState(0);
  if (isProblem(failed) && failed.code === 'not-found') {
    return (
      <EmptyState title="This form is not there">
        It was deleted, or the address is wrong. <Link to="/forms">See all forms.</Link>
      </EmptyState>
    );
  }
  const register = build && form && entryRegisters(build).find(({ id }) => id === form.registerId);
  if (!build || !me || !form || !register) return <Waiting error={errorWords(error ?? failed)} />;
  const again = async () => {
    await refetch();
    setRound(round + 1);
  };
  return <OneForm key={`${formId} ${round}`} form={form} register={register} build={build} me={me} again={() => void again()} />;
}

interface OneFormProps {
  readonly form: FormView;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
  again(): void;
}

const views = { layout: 'Layout', wide: 'Preview', narrow: 'On a phone' } as const;

function OneForm({ form, register, build, me, again }: OneFormProps) {
  const laying = useLaying(form);
  const [selected, select] = useState<Selected>();
  const [shown, setShown] = useState<keyof typeof views>('layout');
  const catalogs = useCatalogs(register.fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []));
  const layout = useMemo(
    () => storedLayout(laying.layout, register.fields, me.house.locale),
    [laying.layout, register.fields, me.house.locale],
  );
  // A list that is still coming is not found too short, or empty.
  const listed = register.fields.every(({ rule }) => catalogIdOf(rule) === undefined || catalogs.has(catalogIdOf(rule)!));
  const findings = useMemo(
    () => (listed ? layoutFindings(layout, { fields: register.fields, catalogs, locale: me.house.locale, today: me.house.today }) : []),
    [listed, layout, register.fields, catalogs, me.house],
  );
  const controlAt = (one: FormField): Control | null => {
    const field = register.fields.find(({ key }) => key === one.field);
    return field ? controlOf(field, one.control, lengthOfList(field.rule, catalogs)) : null;
  };
  /** Each field with the control by which it is asked. */
  const settled = (): FormLayout => ({
    ...layout,
    sections: layout.sections.map((section) => ({
      ...section,
      fields: section.fields.map((one) => ({ ...one, control: controlAt(one) })),
    })),
  });
  return (
    <Page
      title={laying.title}
      about={`Asks for entries of ${register.title}; ${form.published === null ? 'not published yet' : `version ${form.published} is filled now`}.`}
      strip={<FormStrip form={form} layout={layout} register={register} build={build} />}
      actions={<FormActs form={form} laying={laying} />}
      slip={
        shown === 'layout' ? (
          <LayoutSlip
            register={register}
            layout={laying.layout}
            findings={findings}
            catalogs={catalogs}
            selected={selected}
            build={build}
            me={me}
            whole={<WholeForm form={form} laying={laying} me={me} />}
            select={select}
            change={(next) => laying.change({ layout: next })}
          />
        ) : undefined
      }
    >
      <HStack px="4" py="2" gap="3" borderBottomWidth="1px" borderColor="lineSoft" wrap="wrap">
        <SegmentGroup.Root
          recipe={segmentGroupSlotRecipe}
          size="xs"
          value={shown}
          onValueChange={({ value }) => setShown(Object.keys(views).find((view): view is keyof typeof views => view === value) ?? 'layout')}
          aria-label="How the form is shown"
        >
          <SegmentGroup.Indicator bg="card" />
          {Object.entries(views).map(([value, words]) => (
            <SegmentGroup.Item key={value} value={value}>
              <SegmentGroup.ItemText>{words}</SegmentGroup.ItemText>
              <SegmentGroup.ItemHiddenInput />
            </SegmentGroup.Item>
          ))}
        </SegmentGroup.Root>
        {shown === 'layout' && selected !== undefined && (
          <Button size="2xs" variant="ghost" onClick={() => select(undefined)}>
            The whole form
          </Button>
        )}
        {laying.trouble && (
          <HStack gap="2" color="brick.fg" role="alert">
            <Text>{laying.trouble.words}</Text>
            {laying.trouble.stale && (
              <Button size="2xs" onClick={again}>
                Refresh
              </Button>
            )}
          </HStack>
        )}
      </HStack>
      {shown === 'layout' ? (
        <LayoutCanvas
          register={register}
          layout={laying.layout}
          findings={findings}
          selected={selected}
          controlOf={controlAt}
          select={select}
          change={(next) => laying.change({ layout: next })}
        />
      ) : (
        <Preview
          key={shown}
          title={laying.title}
          formId={form.id}
          layout={settled()}
          register={register}
          me={me}
          build={build}
          catalogs={catalogs}
          narrow={shown === 'narrow'}
        />
      )}
    </Page>
  );
}

function FormActs({ form, laying }: { form: FormView; laying: Laying }) {
  const [publish, { isLoading }] = usePublishFormMutation();
  const [close] = useCloseFormMutation();
  const [drop] = useDeleteFormMutation();
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const publishNow = async () => {
    if (!(await laying.flush())) return;
    const made = await attempt(publish(form.id).unwrap());
    if (made) notice('done', `Version ${made.version} is published and can be filled.`);
  };
  const remove = async () => {
    if ((await attempt(drop(form.id).unwrap())) !== undefined) await navigate('/forms');
  };
  return (
    <>
      <Button disabled={!laying.takeBack} onClick={() => laying.takeBack?.()}>
        <Undo2 size={13} aria-hidden /> Undo
      </Button>
      {form.published !== null && (
        <Button asChild>
          <Link to={`/forms/${form.id}/fill`}>Fill it</Link>
        </Button>
      )}
      <ActButton variant="solid" loading={isLoading} onClick={() => void publishNow()}>
        Publish
      </ActButton>
      {form.published !== null && (
        <Confirm
          ask="Close the form"
          about="Nobody can fill it until it is published again, by a link either. Its entries and versions stay."
          act="Close the form"
          onConfirm={() => void attempt(close(form.id).unwrap())}
        />
      )}
      <Confirm
        ask="Delete"
        about="The form, its versions and its links are gone for good. The entries that came through it stay, without its mark."
        act="Delete the form"
        onConfirm={() => void remove()}
      />
    </>
  );
}

interface PreviewProps {
  readonly title: string;
  readonly formId: string;
  readonly layout: FormLayout;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly narrow: boolean;
}

/** The form as a clerk would have it; nothing is stored. */
function Preview({ title, formId, layout, register, build, me, catalogs, narrow }: PreviewProps) {
  const fields = askedIn(layout).flatMap(({ field }) => register.fields.find(({ key }) => key === field) ?? []);
  const fed = [...new Set(fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []))].map((id) => ({
    id,
    title: build.catalogs.find((catalog) => catalog.id === id)?.title ?? '',
  }));
  const view: FillView = { formId, version: 0, title, layout, fields, begins: {}, catalogs: fed, house: { ...me.house } };
  return (
    <Box bg={narrow ? 'deep' : undefined} py={narrow ? '4' : '0'}>
      <Box
        maxW={narrow ? '390px' : undefined}
        mx={narrow ? 'auto' : undefined}
        bg="card"
        borderWidth={narrow ? '1px' : '0'}
        borderColor="line"
        rounded={narrow ? 'l3' : undefined}
      >
        <FillForm view={view} catalogs={catalogs} draftKey={undefined} narrow={narrow} />
      </Box>
    </Box>
  );
}
