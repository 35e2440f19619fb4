// The sheets of one kind as index cards, and the form for a new one.
import { Box, Heading, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { MakeSheetDto, type BuildView, type SheetView } from '@dellum/contract';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { FromRows } from '../upkeep/FromRows.js';
import { useFieldCountsQuery } from '../../data/entriesApi.js';
import { useBuildQuery, useMakeSheetMutation } from '../../data/buildApi.js';
import { errorWords } from '../../data/problem.js';

interface SheetListProps {
  readonly kind: 'entry' | 'source';
  readonly title: string;
  readonly about: string;
  readonly empty: string;
  readonly mayMake: boolean;
  /** What stands before the sheets. */
  first?(build: BuildView): ReactNode;
}

const pathOf = (sheet: SheetView) => `/${sheet.kind === 'entry' ? 'sheets' : 'sources'}/${sheet.id}`;

function Outside({ registerId }: { registerId: string }) {
  const { data: counts } = useFieldCountsQuery(registerId);
  const outside = counts?.reduce((sum, count) => sum + count.outside, 0) ?? 0;
  return outside > 0 ? <Text color="amber.fg">{outside} outside</Text> : null;
}

function SheetCard({ sheet }: { sheet: SheetView }) {
  const lists = sheet.registers.map(({ title }) => title);
  const fields = sheet.registers[0]?.fields.length ?? 0;
  return (
    <Box asChild borderWidth="1px" borderColor="line" rounded="l3" p="4" bg="paper" _hover={{ borderColor: 'damson.border' }}>
      <Link to={pathOf(sheet)}>
        <Heading as="h2" fontSize="md">
          {sheet.title}
        </Heading>
        <Text color="inkSoft">{sheet.note}</Text>
        <Text mt="2" fontSize="xs" color="inkSoft">
          {sheet.kind === 'source' ? lists.join(', ') || 'no lists yet' : fields === 1 ? '1 field' : `${fields} fields`}
        </Text>
        {sheet.kind === 'entry' && sheet.registers[0] && <Outside registerId={sheet.registers[0].id} />}
      </Link>
    </Box>
  );
}

function NewSheet({ kind }: { kind: SheetView['kind'] }) {
  const { register, fault, submit, problem, formState } = useDtoForm(MakeSheetDto, { kind, title: '', note: '' });
  const [make] = useMakeSheetMutation();
  const navigate = useNavigate();
  const save = submit(async (values) => {
    const { id } = await make(values).unwrap();
    // What comes next in an empty sheet are its fields.
    await navigate(kind === 'entry' ? `/sheets/${id}?new-field=` : `/sources/${id}`);
  });
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Heading as="h2" fontSize="md" mb="3">
        {kind === 'entry' ? 'New sheet' : 'New source sheet'}
      </Heading>
      <Stack gap="3">
        <FormField label="Title" fault={fault('title') ?? problem} {...register('title')} />
        <FormField label="What it is, in one line" fault={fault('note')} {...register('note')} />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          Create the sheet
        </ActButton>
      </Stack>
    </form>
  );
}

/** A new sheet by its title, or of a table: one of them once a table is there. */
function Making({ kind, build }: { kind: SheetView['kind']; build: BuildView }) {
  const [rows, setRows] = useState<string[][]>();
  return (
    <>
      {!rows && <NewSheet kind={kind} />}
      {kind === 'entry' && <FromRows build={build} rows={rows} setRows={setRows} />}
    </>
  );
}

export function SheetList({ kind, title, about, empty, mayMake, first }: SheetListProps) {
  const { data: build, error } = useBuildQuery();
  if (!build) return <Waiting error={errorWords(error)} />;
  const sheets = build.sheets.filter((sheet) => sheet.kind === kind);
  return (
    <Page title={title} about={about} slip={mayMake ? <Making kind={kind} build={build} /> : undefined}>
      {first?.(build)}
      {sheets.length === 0 ? (
        <EmptyState title="Nothing here yet">{empty}</EmptyState>
      ) : (
        <SimpleGrid columns={{ base: 1, md: 2, xl: 3 }} gap="4" p="5">
          {sheets.map((sheet) => (
            <SheetCard key={sheet.id} sheet={sheet} />
          ))}
        </SimpleGrid>
      )}
    </Page>
  );
}
