// A catalog is used for fields: chosen here from all sheets, with what it does to the entries said first.
import { Box, Button, Stack, Text } from '@chakra-ui/react';
import type { BuildView, CatalogView, FieldView, Me, RegisterView, SetRulesDto, SheetView } from '@dellum/contract';
import { andList, catalogIdOf, chainRules, matchKey, readsDirectly, type CatalogRule, type FieldKind } from '@dellum/core';
import { useRef, useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { WayFirst } from '../../frame/ErrandBand.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useCatalogItemsQuery } from '../../data/catalogsApi.js';
import { useMakeFieldMutation } from '../../data/buildApi.js';
import { useRulesTrialQuery, useSetRuleMutation, useSetRulesMutation } from '../../data/bindingsApi.js';
import { catalogRuleFor, isNamed, levelNames, likeness } from './levels.js';
import { number } from '../../frame/written.js';

interface Place {
  readonly sheet: SheetView;
  readonly register: RegisterView;
  readonly field: FieldView;
}

const isText = (kind: FieldKind) => kind === 'text' || kind === 'several values';

/** Fields that most likely want the catalog are chosen from the start. */
const sure = 0.9;

export function UseForFields({ catalog, build, me, close }: { catalog: CatalogView; build: BuildView; me: Me; close: () => void }) {
  const names = levelNames(build, catalog.id);
  const places = build.sheets
    .filter(({ kind }) => kind === 'entry')
    .flatMap((sheet) => sheet.registers.flatMap((register) => register.fields.map((field): Place => ({ sheet, register, field }))));
  const free = places.filter(({ field }) => catalogIdOf(field.rule) !== catalog.id);
  const fit = ({ field }: Place) => Math.max(likeness(catalog.title, field.heading), ...names.map((name) => likeness(name, field.heading)));
  // The sheet that feeds the catalog is not what it is used for.
  const feeds = ({ register }: Place) => readsDirectly(catalog.definition, 'registers', register.id);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    () =>
      new Set(
        free
          .filter((place) => place.field.rule === null && isText(place.field.kind) && !feeds(place) && fit(place) >= sure)
          .map(({ field }) => field.id),
      ),
  );
  const picked = places.filter(({ field }) => chosen.has(field.id));
  const { data: items } = useCatalogItemsQuery(catalog.id);
  const [makeField] = useMakeFieldMutation();
  const attempt = useTry();
  /** The fields that the catalog would have on a sheet, and that the sheet does not have yet. */
  const missingOn = ({ registers }: SheetView) => {
    // Lists under headings have no name for what the headings are: people head such fields themselves.
    if (names.length > 0 && !isNamed(names)) return [];
    const there = (wanted: string) => registers[0]?.fields.some(({ heading }) => likeness(wanted, heading) >= sure) ?? false;
    const own =
      names.length > 0 ? names.map((heading) => ({ heading, kind: 'text' as const })) : [{ heading: catalog.title, kind: 'text' as const }];
    const wanted = [...own, ...(items?.companions ?? []).map(({ heading, kind }) => ({ heading, kind }))];
    return own.some(({ heading }) => there(heading)) ? [] : wanted.filter(({ heading }) => !there(heading));
  };
  const addTo = async (sheet: SheetView) => {
    const made: string[] = [];
    for (const { heading, kind } of missingOn(sheet)) {
      const field = await attempt(makeField({ registerId: sheet.registers[0]!.id, field: { heading, kind } }).unwrap());
      if (!field) break;
      made.push(field.id);
    }
    // What comes along is filled in; only the levels take the catalog.
    setChosen(new Set(made.slice(0, Math.max(1, names.length))));
  };
  // With Shift all fields from the last one chosen to this one are.
  const last = useRef<string>(undefined);
  const shifted = useRef(false);
  const set = (id: string, checked: boolean) => {
    const ids = free.map(({ field }) => field.id);
    const [from, to] = [ids.indexOf(last.current ?? id), ids.indexOf(id)];
    const span = shifted.current && from >= 0 ? ids.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
    last.current = id;
    setChosen(new Set(checked ? [...chosen, ...span] : [...chosen].filter((known) => !span.includes(known))));
  };
  return (
    <Stack
      gap="3"
      onClickCapture={(event) => {
        // The box that hears the change is clicked by its label, without Shift.
        if ((event.target as HTMLElement).tagName !== 'INPUT') shifted.current = event.shiftKey;
      }}
    >
      <SlipHead title="Use it for fields" about={`Each offers the values of ${catalog.title} from then on.`} close={close} />
      {places.length === 0 && (
        <Text>
          There are no fields yet.{' '}
          <WayFirst to="/sheets" errand={{ what: `use ${catalog.title} for fields`, to: `/catalogs/${catalog.id}?slip=use` }}>
            Make a sheet with the fields that people fill in
          </WayFirst>
        </Text>
      )}
      {build.sheets
        .filter((sheet) => free.some((place) => place.sheet.id === sheet.id))
        .map((sheet) => (
          <Stack key={sheet.id} role="group" aria-label={sheet.title} gap="1">
            <Text fontWeight="bold">{sheet.title}</Text>
            {free
              .filter((place) => place.sheet.id === sheet.id)
              .map(({ field }) => (
                <Check
                  key={field.id}
                  label={field.rule ? `${field.heading} (has a rule, which it replaces)` : field.heading}
                  checked={chosen.has(field.id)}
                  set={(checked) => set(field.id, checked)}
                />
              ))}
            {missingOn(sheet).length > 0 && (
              <Button alignSelf="start" whiteSpace="normal" h="auto" py="1" textAlign="start" onClick={() => void addTo(sheet)}>
                Add {andList(missingOn(sheet).map(({ heading }) => heading))} to {sheet.title}
              </Button>
            )}
          </Stack>
        ))}
      {picked.length > 0 && (
        <Use key={[...chosen].join()} catalog={catalog} picked={picked} names={names} build={build} me={me} close={close} />
      )}
    </Stack>
  );
}

interface UseProps {
  readonly catalog: CatalogView;
  readonly picked: readonly Place[];
  readonly names: readonly string[];
  readonly build: BuildView;
  readonly me: Me;
  close(): void;
}

function Use({ catalog, picked, names, build, me, close }: UseProps) {
  const { data: items } = useCatalogItemsQuery(catalog.id);
  const [setRules, { isLoading }] = useSetRulesMutation();
  const [setRule] = useSetRuleMutation();
  const attempt = useTry();
  const notice = useNotice();
  const [first] = picked;
  const { register, field } = first!;
  const oneSheet = picked.every((place) => place.register.id === register.id);
  const isChain = names.length > 1 && oneSheet && picked.length > 1 && picked.length <= names.length;
  // Outermost first: by the names of the levels where they tell, else as the fields stand.
  const levelOf = (place: Place) => names.findIndex((name) => matchKey(name) === matchKey(place.field.heading));
  const ordered = picked.every((place) => levelOf(place) >= 0) ? [...picked].sort((a, b) => levelOf(a) - levelOf(b)) : picked;
  const fields = ordered.map((place) => place.field.id);
  const wanted: SetRulesDto = isChain
    ? { fields, chain: catalog.id }
    : {
        fields,
        rule:
          picked.length === 1
            ? catalogRuleFor(catalog.id, { field, register, build, me }, field.rule)
            : { ...chainRules(catalog.id, [''])[0]!, level: null },
      };
  const { currentData: impacts } = useRulesTrialQuery(wanted);
  const outside = impacts?.reduce((sum, impact) => sum + impact.outside, 0) ?? 0;
  const unfit = impacts?.find((impact) => impact.unfit !== undefined);
  // What comes along has a place where a field of the sheet is headed like it.
  const deepest = ordered.at(-1)!;
  const companions = items?.companions ?? [];
  const brings = oneSheet
    ? companions.flatMap(({ key, heading }) =>
        deepest.register.fields
          .filter((own) => !fields.includes(own.id) && matchKey(own.heading) === matchKey(heading))
          .map((own) => ({ companion: key, field: own.key, heading: own.heading })),
      )
    : [];
  const use = async () => {
    const outcome = await attempt(setRules(wanted).unwrap());
    if (!outcome) return;
    if (brings.length > 0) {
      const chain = chainRules(
        catalog.id,
        ordered.map((place) => place.field.key),
      ).at(-1)!;
      const rule: CatalogRule = {
        ...(isChain ? chain : catalogRuleFor(catalog.id, { field: deepest.field, register, build, me }, deepest.field.rule)),
        blankParent: isChain ? 'all' : 'nothing',
        brings: brings.map(({ companion, field: key }) => ({ companion, field: key })),
      };
      await attempt(setRule({ fieldId: deepest.field.id, rule }).unwrap());
    }
    notice(
      'done',
      `${ordered.map((place) => place.field.heading).join(', ')} ${picked.length === 1 ? 'takes its values' : 'take their values'} from ${catalog.title} from now on.`,
    );
    close();
  };
  return (
    <Box
      role="status"
      p="3"
      borderWidth="1px"
      borderColor={outside > 0 ? 'amber.border' : 'line'}
      bg={outside > 0 ? 'amber.subtle' : 'paper'}
      rounded="l3"
    >
      {isChain && (
        <Text mb="1">
          {ordered.map((place, at) => `${place.field.heading} takes ${names[at]}`).join('; ')}: each under the one before it.
        </Text>
      )}
      {brings.length > 0 && (
        <Text mb="1">
          {brings.map(({ heading }) => heading).join(', ')} {brings.length === 1 ? 'comes' : 'come'} along with {deepest.field.heading}.
        </Text>
      )}
      {unfit && <Text color="brick.fg">{unfit.unfit}</Text>}
      <Text mb="2">
        {impacts === undefined
          ? 'Counting …'
          : outside === 0
            ? 'No entry is outside by it.'
            : `${number.format(outside)} ${outside === 1 ? 'entry holds' : 'entries hold'} something else; they stay as they are and are marked.`}
      </Text>
      <ActButton
        variant="solid"
        size="sm"
        loading={isLoading}
        disabled={impacts === undefined || unfit !== undefined}
        onClick={() => void use()}
      >
        Use it for {picked.length === 1 ? picked[0]!.field.heading : `${picked.length} fields`}
      </ActButton>
    </Box>
  );
}
