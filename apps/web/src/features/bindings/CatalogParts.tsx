// What a rule over a catalog says of its level and parents, of the day that counts, and of the companions of its items.
import { Button, HStack, IconButton, Input, Stack, Text } from '@chakra-ui/react';
import { comparisons, type CatalogRule, type Comparison, type Fitting, type Rule, type TypedRule } from '@dellum/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Check } from '../../frame/Check.js';
import { Select } from '../../frame/Select.js';
import { useCatalogItemsQuery } from '../../data/catalogsApi.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import type { RulePartProps, RulePlace } from './rulePlace.js';

const none = '';
const optionsOf = ({ register, field }: RulePlace, words = 'no field'): (readonly [string, string])[] => [
  [none, words],
  ...register.fields.filter(({ key }) => key !== field.key).map(({ key, heading }) => [key, heading] as const),
];

export function ParentsEditor({ rule, place, choose }: RulePartProps<CatalogRule>) {
  const catalog = useCatalogs([rule.catalogId]).get(rule.catalogId);
  const [draft, setDraft] = useState(rule);
  if (!catalog) return <Text color="inkSoft">Loading …</Text>;
  if (catalog.levels === 1) return <Text>{catalog.title} has one level, so nothing stands under a parent in it.</Text>;
  const level = draft.level ?? catalog.levels - 1;
  const parents = Array.from({ length: level }, (_, at) => draft.parents[at] ?? none);
  const complete = parents.every((key) => key !== none);
  return (
    <Stack gap="2">
      <Select
        label="Level"
        value={String(level)}
        options={Array.from(
          { length: catalog.levels },
          (_, at) =>
            [String(at), at === catalog.levels - 1 ? `its deepest level (${at + 1})` : `level ${at + 1} of ${catalog.levels}`] as const,
        )}
        onChoose={(next) => setDraft({ ...draft, level: Number(next), parents: draft.parents.slice(0, Number(next)) })}
      />
      {parents.map((key, at) => (
        <Select
          key={at}
          label={`Parent ${at + 1}`}
          value={key}
          options={optionsOf(place, `level ${at + 1} is in …`)}
          onChoose={(next) => setDraft({ ...draft, parents: parents.map((known, place_) => (place_ === at ? next : known)) })}
        />
      ))}
      {level > 0 && (
        <>
          <Select
            label="While a parent is blank"
            value={draft.blankParent}
            options={[
              ['nothing', 'nothing is offered while a parent is blank'],
              ['all', 'all is offered, and the parent is filled'],
            ]}
            onChoose={(next) => setDraft({ ...draft, blankParent: next as CatalogRule['blankParent'] })}
          />
          <Select
            label="When the choice above changes"
            value={draft.misfit}
            options={[
              ['clear', 'what no longer fits is cleared'],
              ['keep', 'what no longer fits is kept and marked'],
            ]}
            onChoose={(next) => setDraft({ ...draft, misfit: next as CatalogRule['misfit'] })}
          />
          <Check
            label="A single choice is filled in by itself"
            checked={draft.fillsSingle}
            set={(fillsSingle) => setDraft({ ...draft, fillsSingle })}
          />
        </>
      )}
      <HStack>
        <Button
          variant="solid"
          disabled={level > 0 && !complete}
          onClick={() => choose({ ...draft, level: level === catalog.levels - 1 && level === 0 ? null : level, parents })}
        >
          Use this
        </Button>
        {rule.parents.length > 0 && <Button onClick={() => choose({ ...rule, parents: [] })}>Without parents</Button>}
      </HStack>
    </Stack>
  );
}

export function DayEditor({ rule, place, choose }: RulePartProps<CatalogRule>) {
  const dates = place.register.fields.filter(({ kind, key }) => kind === 'date' && key !== place.field.key);
  return (
    <Select
      label="The day that counts"
      value={rule.day ?? none}
      options={[[none, 'today'], ...dates.map(({ key, heading }) => [key, `the day in ${heading}`] as const)]}
      onChoose={(day) => choose({ ...rule, day: day === none ? null : day })}
    />
  );
}

function useCompanions(catalogId: string): (readonly [string, string])[] {
  const { data } = useCatalogItemsQuery(catalogId);
  return data?.companions.map(({ key, heading }) => [key, heading] as const) ?? [];
}

export function FittingEditor({ rule, place, choose }: RulePartProps<CatalogRule>) {
  const companions = useCompanions(rule.catalogId);
  const [fitting, setFitting] = useState<readonly Fitting[]>(rule.fitting);
  const [first] = companions;
  const fields = place.register.fields.filter(({ key }) => key !== place.field.key);
  if (!first) return <Text>The items of this catalog have no companions to compare.</Text>;
  const change = (at: number, part: Partial<Fitting>) =>
    setFitting(fitting.map((one, where) => (where === at ? { ...one, ...part } : one)));
  return (
    <Stack gap="2">
      {fitting.map((one, at) => (
        <HStack key={at} gap="1">
          <Select
            label={`Companion ${at + 1}`}
            value={one.companion}
            options={companions}
            onChoose={(companion) => change(at, { companion })}
          />
          <Select
            label={`Comparison ${at + 1}`}
            value={one.is}
            options={comparisons.map((is) => [is, is] as const)}
            onChoose={(is) => change(at, { is: is as Comparison })}
          />
          <Select
            label={`Field ${at + 1}`}
            value={one.field}
            options={fields.map(({ key, heading }) => [key, heading] as const)}
            onChoose={(field) => change(at, { field })}
          />
          <IconButton
            aria-label={`Take out condition ${at + 1}`}
            size="2xs"
            variant="ghost"
            onClick={() => setFitting(fitting.filter((_, where) => where !== at))}
          >
            <X size={12} />
          </IconButton>
        </HStack>
      ))}
      <Button
        size="2xs"
        variant="ghost"
        alignSelf="start"
        disabled={fields.length === 0}
        onClick={() => setFitting([...fitting, { companion: first[0], is: 'at least', field: fields[0]!.key }])}
      >
        One condition more
      </Button>
      <Button variant="solid" alignSelf="start" onClick={() => choose({ ...rule, fitting })}>
        Use this
      </Button>
    </Stack>
  );
}

export function BroughtEditor({ rule, place, choose }: RulePartProps<CatalogRule>) {
  const companions = useCompanions(rule.catalogId);
  const [brought, setBrought] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(rule.brings.map(({ companion, field }) => [companion, field])),
  );
  if (companions.length === 0) return <Text>The items of this catalog have no companions. Add them where the catalog is composed.</Text>;
  return (
    <Stack gap="2">
      {companions.map(([key, heading]) => (
        <HStack key={key} gap="1.5">
          <Text flex="1">{heading} into</Text>
          <Select
            label={`${heading} into`}
            width="160px"
            value={brought[key] ?? none}
            options={optionsOf(place)}
            onChoose={(field) => setBrought({ ...brought, [key]: field })}
          />
        </HStack>
      ))}
      <Button
        variant="solid"
        alignSelf="start"
        onClick={() =>
          choose({
            ...rule,
            brings: Object.entries(brought).flatMap(([companion, field]) => (field === none ? [] : [{ companion, field }])),
          })
        }
      >
        Use this
      </Button>
    </Stack>
  );
}

export function PickingEditor({ rule, place, choose }: RulePartProps<CatalogRule | TypedRule>) {
  const [lines, setLines] = useState(String(rule.picking.lines));
  const set = (picking: Partial<CatalogRule['picking']>) => choose({ ...rule, picking: { ...rule.picking, ...picking } } as Rule);
  return (
    <Stack gap="2">
      <Select
        label="Picked from a list, or typed"
        value={rule.picking.list ? 'list' : 'plain'}
        options={[
          ['list', 'picked from a list that opens'],
          ['plain', 'typed without a list'],
        ]}
        onChoose={(next) => set({ list: next === 'list' })}
      />
      <Select
        label="Search"
        value={rule.picking.search}
        options={[
          ['anywhere', 'found anywhere in the text'],
          ['starts', 'found at the start of a word'],
        ]}
        onChoose={(search) => set({ search: search as CatalogRule['picking']['search'] })}
      />
      <HStack gap="1.5">
        <Input
          size="xs"
          w="60px"
          inputMode="numeric"
          aria-label="Lines of the list"
          value={lines}
          onChange={(event) => setLines(event.target.value)}
        />
        <Text flex="1">lines open</Text>
        <Button variant="solid" onClick={() => set({ lines: Math.max(3, Math.min(30, Math.floor(Number(lines)) || 8)) })}>
          Use this
        </Button>
      </HStack>
      {place.field.kind === 'several values' && (
        <Select
          label="How many values"
          value={String(rule.picking.most ?? '')}
          options={[['', 'as many as one likes'], ...[1, 2, 3, 4, 5, 8, 12].map((most) => [String(most), `${most} at most`] as const)]}
          onChoose={(most) => set({ most: most === '' ? null : Number(most) })}
        />
      )}
    </Stack>
  );
}
