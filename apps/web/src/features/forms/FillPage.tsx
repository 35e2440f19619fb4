// Filling a form of the house: it opens at once, its lists come by themselves.
import { Box, Button } from '@chakra-ui/react';
import type { FillView, Filled } from '@dellum/contract';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { errorWords, isProblem } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import { whenIdle } from '../../frame/whenIdle.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { FillForm } from './FillForm.js';
import { useFillFormMutation, useFillingQuery, type FormAt } from '../../data/formsApi.js';
import type { Filling } from './useFilling.js';

/** The lists of a form: asked for once the form itself stands, so that one can type in it at once. */
function useLists(view: FillView | undefined, token?: string) {
  const [stands, setStands] = useState(false);
  useEffect(() => (view ? whenIdle(() => setStands(true)) : undefined), [view]);
  return useCatalogs(stands && view ? view.catalogs.map(({ id }) => id) : [], token);
}

/** A form whose entries are stored. */
function useSending(at: FormAt, view: FillView | undefined) {
  const [fill] = useFillFormMutation();
  return (filling: Filling): Promise<Filled> =>
    fill({ at, body: { submission: filling.submission, version: view!.version, answers: filling.answers() } }).unwrap();
}

export function FillPage() {
  const { formId = '', version } = useParams();
  const at: FormAt = { formId, ...(version !== undefined && { version: Number(version) }) };
  const { currentData: view, error, refetch } = useFillingQuery(at, { refetchOnMountOrArgChange: true });
  const { data: build } = useBuildQuery();
  const catalogs = useLists(view);
  const send = useSending(at, view);
  if (isProblem(error) && (error.code === 'form-closed' || error.code === 'not-found')) {
    return (
      <EmptyState title={error.code === 'form-closed' ? 'This form is closed' : 'This form is not there'}>
        {error.detail} <Link to="/forms">See the forms that are open.</Link>
      </EmptyState>
    );
  }
  if (!view) return <Waiting error={errorWords(error)} />;
  const registerId = build?.forms.find(({ id }) => id === formId)?.registerId;
  return (
    <Page title={view.title} about={`A form, version ${view.version}. What you type stays in this browser until you send it.`}>
      <FillForm
        key={`${formId} ${view.version}`}
        view={view}
        catalogs={catalogs}
        draftKey={formId}
        send={send}
        reload={() => void refetch()}
        done={({ entryId }) =>
          registerId && (
            <Button size="md" asChild>
              <Link to={`/records/${registerId}/${entryId}`}>Look at the entry</Link>
            </Button>
          )
        }
      />
    </Page>
  );
}

/** A form that somebody without an account fills by a link. */
export function OpenFormPage() {
  const { token = '' } = useParams();
  const { currentData: view, error, refetch } = useFillingQuery({ token });
  const catalogs = useLists(view, token);
  const send = useSending({ token }, view);
  if (isProblem(error)) return <EmptyState title="This form cannot be filled now">{error.detail}</EmptyState>;
  if (!view) return <Waiting error={errorWords(error)} />;
  return (
    <Box as="main" h="100%" overflow="auto">
      <Page title={view.title} about={`A form of ${view.house.name}. What you type stays in this browser until you send it.`}>
        <FillForm key={view.version} view={view} catalogs={catalogs} draftKey={view.formId} send={send} reload={() => void refetch()} />
      </Page>
    </Box>
  );
}
