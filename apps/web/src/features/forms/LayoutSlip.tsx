// The slip of the layout: what wants mending in it, and the details of the field or section that is selected.
import { Box, Button, Heading, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import {
  askedIn,
  changeField,
  changeSection,
  controlsFor,
  dropSection,
  format,
  lengthOfList,
  sectionColumns,
  stopsPublishing,
  type Catalog,
  type FormLayout,
  type LayoutFinding,
} from '@dellum/core';
import type { BuildView, Me, RegisterView } from '@dellum/contract';
import { useId, type ReactNode } from 'react';
import { Check } from '../../frame/Check.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { RuleSentence } from '../bindings/RuleSentence.js';
import { FilterEditor } from '../filters/FilterEditor.js';
import type { Selected } from './LayoutCanvas.js';

interface LayoutSlipProps {
  readonly register: RegisterView;
  readonly layout: FormLayout;
  readonly findings: readonly LayoutFinding[];
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly selected: Selected;
  readonly build: BuildView;
  readonly me: Me;
  /** What concerns the form as a whole. */
  readonly whole: ReactNode;
  select(selected: Selected): void;
  change(layout: FormLayout): void;
}

export function LayoutSlip(props: LayoutSlipProps) {
  const { selected, findings, layout } = props;
  return (
    <Stack gap="5">
      {findings.length > 0 && <Findings findings={findings} select={props.select} />}
      {selected === undefined ? (
        props.whole
      ) : 'field' in selected ? (
        <FieldDetails key={selected.field} {...props} field={selected.field} />
      ) : (
        layout.sections.some(({ id }) => id === selected.section) && (
          <SectionDetails key={selected.section} {...props} id={selected.section} />
        )
      )}
    </Stack>
  );
}

function Findings({ findings, select }: Pick<LayoutSlipProps, 'findings' | 'select'>) {
  const stopping = findings.filter(stopsPublishing).length;
  return (
    <Box
      as="section"
      aria-label="What wants mending"
      bg="amber.subtle"
      color="amber.fg"
      borderLeftWidth="4px"
      borderColor="amber.solid"
      rounded="l2"
      px="3"
      py="2.5"
    >
      <Text fontWeight="bold">
        {stopping === 0 ? 'Worth a look' : stopping === 1 ? 'One fault stops publishing' : `${stopping} faults stop publishing`}
      </Text>
      <Stack as="ul" gap="1" mt="1" listStyleType="none">
        {findings.map(({ field, section, message, what }, at) => (
          <li key={at}>
            {field !== undefined && what !== 'gone' ? (
              <Linked onClick={() => select({ field })}>{message}</Linked>
            ) : section !== undefined ? (
              <Linked onClick={() => select({ section })}>{message}</Linked>
            ) : (
              message
            )}
          </li>
        ))}
      </Stack>
    </Box>
  );
}

function Linked({ onClick, children }: { onClick: () => void; children: ReactNode }) {
  return (
    <Box asChild textAlign="start" textDecoration="underline" textUnderlineOffset="3px" cursor="pointer">
      <button type="button" onClick={onClick}>
        {children}
      </button>
    </Box>
  );
}

/** A labelled place for text. */
export function Worded({
  label,
  value,
  lines = 1,
  onChange,
}: {
  label: string;
  value: string;
  lines?: number;
  onChange: (text: string) => void;
}) {
  const id = useId();
  const shared = { id, size: 'sm' as const, bg: 'card', borderColor: 'slate.border', value };
  return (
    <Stack gap="1">
      <Text asChild fontSize="xs" color="inkSoft">
        <label htmlFor={id}>{label}</label>
      </Text>
      {lines > 1 ? (
        <Textarea {...shared} rows={lines} onChange={(event) => onChange(event.target.value)} />
      ) : (
        <Input {...shared} onChange={(event) => onChange(event.target.value)} />
      )}
    </Stack>
  );
}

/** Other asked fields, for conditions. */
const othersIn = (register: RegisterView, layout: FormLayout, own: ReadonlySet<string>) => {
  const asked = new Set(askedIn(layout).map(({ field }) => field));
  return register.fields.filter(({ key }) => asked.has(key) && !own.has(key));
};

function FieldDetails({ register, layout, catalogs, build, me, field: key, select, change }: LayoutSlipProps & { readonly field: string }) {
  const one = askedIn(layout).find(({ field }) => field === key);
  const field = register.fields.find((known) => known.key === key);
  if (!one || !field) return null;
  const set = (part: Partial<typeof one>) => change(changeField(layout, key, part));
  const controls = controlsFor(field, lengthOfList(field.rule, catalogs));
  return (
    <Stack gap="4">
      <SlipHead title={field.heading} about="How the form asks it" close={() => select(undefined)} />
      {field.rule && (
        <Box>
          <RuleSentence rule={field.rule} place={{ field, register, build, me }} />
          <Text fontSize="xs" color="inkSoft">
            The rule holds wherever the field is entered; the form changes nothing of it.
          </Text>
        </Box>
      )}
      <Stack gap="1">
        <Text fontSize="xs" color="inkSoft">
          Asked by
        </Text>
        <Select
          label="Asked by"
          value={one.control ?? ''}
          options={[['', `${controls[0]}, as it follows from the rule`], ...controls.map((control) => [control, control] as const)]}
          onChoose={(control) => set({ control: controls.find((known) => known === control) ?? null })}
        />
      </Stack>
      <Worded label="Help under the heading" value={one.help} lines={2} onChange={(help) => set({ help })} />
      <Worded
        label="Begins with (left blank: as the rule says)"
        value={one.begins === null ? '' : format(field.kind, one.begins, me.house.locale)}
        onChange={(begins) => set({ begins: begins === '' ? null : begins })}
      />
      <Check label="Takes the whole width" checked={one.wide} set={(wide) => set({ wide })} />
      <Stack gap="1">
        <Text fontSize="xs" color="inkSoft">
          Asked {one.where ? 'only where' : 'always'}
        </Text>
        <FilterEditor
          label="Asked only where"
          fields={othersIn(register, layout, new Set([key]))}
          filter={one.where}
          onChange={(where) => set({ where })}
        />
      </Stack>
    </Stack>
  );
}

function SectionDetails({ register, layout, id, select, change }: LayoutSlipProps & { readonly id: string }) {
  const section = layout.sections.find((known) => known.id === id)!;
  const set = (part: Partial<typeof section>) => change(changeSection(layout, id, (before) => ({ ...before, ...part })));
  return (
    <Stack gap="4">
      <SlipHead title={section.heading || 'A section'} about="Fields that belong together" close={() => select(undefined)} />
      <Worded label="Heading" value={section.heading} onChange={(heading) => set({ heading })} />
      <Worded label="Text under the heading" value={section.help} lines={3} onChange={(help) => set({ help })} />
      <Select
        label="Columns"
        value={String(section.columns)}
        options={sectionColumns.map((count) => [String(count), count === 1 ? 'one column' : `${count} columns, one on a phone`] as const)}
        onChoose={(count) => set({ columns: sectionColumns.find((known) => String(known) === count) ?? 1 })}
      />
      <Stack gap="1">
        <Text fontSize="xs" color="inkSoft">
          Shown {section.where ? 'only where' : 'always'}
        </Text>
        <FilterEditor
          label="Shown only where"
          fields={othersIn(register, layout, new Set(section.fields.map(({ field }) => field)))}
          filter={section.where}
          onChange={(where) => set({ where })}
        />
      </Stack>
      <Button
        alignSelf="start"
        disabled={layout.sections.length === 1}
        onClick={() => {
          change(dropSection(layout, id));
          select(undefined);
        }}
      >
        Take the section out
      </Button>
      {section.fields.length > 0 && (
        <Text fontSize="xs" color="inkSoft">
          Its fields are not asked then; they stay in the sheet.
        </Text>
      )}
    </Stack>
  );
}

export const SlipHeading = ({ children }: { children: ReactNode }) => (
  <Heading as="h2" fontSize="md">
    {children}
  </Heading>
);
