// How an intake is set up: which sheet it fills, and where its files come from.
import { Stack, Text } from '@chakra-ui/react';
import { IntakeDto, type BuildView, type IntakeView } from '@dellum/contract';
import { useChangeIntakeMutation, useMakeIntakeMutation } from '../../data/intakesApi.js';
import { useReachableQuery } from '../../data/linkedApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { Choice } from '../../frame/Choice.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useDtoForm } from '../../frame/useForm.js';
import { Way } from '../../frame/Way.js';

interface IntakeFormProps {
  readonly build: BuildView;
  /** The one that is changed; a new one without. */
  readonly intake?: IntakeView;
  close(): void;
  done(intake: IntakeView): void;
}

const rows = [
  ['new', 'New rows', 'A file of the same name that has grown brings what was added to it; a file of another name is all new.'],
  ['all', 'All rows, old and new', 'Rows that any file brought before are not stored again, however the file is called.'],
] as const;

export function IntakeForm({ build, intake, close, done }: IntakeFormProps) {
  const sheets = build.sheets
    .filter(({ kind }) => kind === 'entry')
    .flatMap((sheet) => sheet.registers.map(({ id }) => [id, sheet.title] as const));
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(IntakeDto, {
    name: intake?.name ?? '',
    registerId: intake?.registerId ?? (sheets.length === 1 ? sheets[0]![0] : ''),
    folder: intake?.folder ?? null,
    pattern: intake?.pattern ?? '',
    holdsAll: intake?.holdsAll ?? false,
  });
  const { data: reach } = useReachableQuery();
  const [make] = useMakeIntakeMutation();
  const [change] = useChangeIntakeMutation();
  const save = submit(async (values) => done(await (intake ? change({ id: intake.id, intake: values }) : make(values)).unwrap()));
  const folder = watch('folder');
  const refusedSheet = fault('registerId');
  const refusedFolder = fault('folder');
  return (
    <form noValidate aria-label={intake ? `How ${intake.name} is set up` : 'New intake'} onSubmit={(event) => void save(event)}>
      <Stack gap="4">
        <SlipHead
          title={intake ? intake.name : 'New intake'}
          about="Every file of one kind goes into a sheet by itself. Rows that fit are stored at once, in your name; what is new waits to be looked at."
          close={close}
        />
        <FormField label="What comes in" autoFocus fault={fault('name') ?? problem} {...register('name')} />
        <Stack gap="1.5">
          <Text fontWeight="medium">Into the sheet</Text>
          {refusedSheet && (
            <Text color="brick.fg" role="alert">
              {refusedSheet}
            </Text>
          )}
          {sheets.length === 0 ? (
            <Text>
              There is no sheet yet in which data are entered. <Way to="/sheets">Make a sheet</Way>
            </Text>
          ) : (
            <Select
              label="Into the sheet"
              value={watch('registerId')}
              options={sheets}
              onChoose={(id) => setValue('registerId', id, { shouldValidate: formState.isSubmitted })}
            />
          )}
        </Stack>
        <Choice
          label="A file holds"
          value={watch('holdsAll') ? 'all' : 'new'}
          options={rows}
          choose={(held) => setValue('holdsAll', held === 'all')}
        />
        <Stack gap="1.5">
          <Check
            label="Look at a folder each minute"
            checked={folder !== null}
            set={(looks) => setValue('folder', looks ? (reach?.folders[0] ?? '') : null)}
          />
          {refusedFolder && (
            <Text color="brick.fg" role="alert">
              {refusedFolder}
            </Text>
          )}
          {folder !== null && reach?.root === null && (
            <Text>No folder is given to this house. Whoever runs the server gives one (DELLUM_FILES).</Text>
          )}
          {folder !== null && reach && reach.root !== null && (
            <>
              <Select
                label="Folder"
                value={folder}
                options={[['', 'the folder of linked files itself'], ...reach.folders.map((path) => [path, path] as const)]}
                onChoose={(path) => setValue('folder', path)}
              />
              <FormField
                label="Names like"
                placeholder="*.csv"
                help="Blank: every file. Nothing in the folder is changed or moved."
                fault={fault('pattern')}
                {...register('pattern')}
              />
            </>
          )}
        </Stack>
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={formState.isSubmitting}>
          {intake ? 'Save' : 'Make the intake'}
        </ActButton>
      </Stack>
    </form>
  );
}
