// The slip of a field: its rule as a sentence, a trial entry, and what the entries hold.
import { Box, Button, HStack, Heading, IconButton, Input, Stack, Text } from '@chakra-ui/react';
import {
  anyOfKind,
  catalogIdOf,
  closingSentence,
  hasList,
  kindLabel,
  newRule,
  ruleTitle,
  rulesFor,
  showing,
  sortedBy,
  type Rule,
} from '@dellum/core';
import { mayDesign, ruleMark, type BuildView, type FieldCount, type FieldView, type Me, type RegisterView } from '@dellum/contract';
import { Pencil, X } from 'lucide-react';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { Confirm } from '../../frame/Confirm.js';
import { RenameBox } from '../../frame/RenameBox.js';
import { ChangedMeanwhile } from '../../frame/ChangedMeanwhile.js';
import { useHalfMade } from '../../frame/useHalfMade.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import type { Arranging } from '../arrangements/useArrangement.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import { MadeAList } from '../upkeep/MadeAList.js';
import { useChangeFieldMutation, useDeleteFieldMutation } from '../../data/buildApi.js';
import { useClearRuleMutation, useRuleTrialQuery, useSetRuleMutation } from '../../data/bindingsApi.js';
import { errorWords } from '../../data/problem.js';
import type { RulePlace } from './rulePlace.js';
import { KindChoice } from './KindChoice.js';
import { catalogRuleFor, likelyCatalog } from './levels.js';
import { NewChoices } from './NewChoices.js';
import { ruleOfKind } from './RulePartEditor.js';
import { Select } from '../../frame/Select.js';
import { RuleHistory } from './RuleHistory.js';
import { RuleSentence } from './RuleSentence.js';
import { TrialEntry } from '../trial/TrialEntry.js';
import { number } from '../../frame/written.js';

const entriesWords = (count: number) => `${number.format(count)} ${count === 1 ? 'entry' : 'entries'}`;

interface FieldSlipProps {
  readonly register: RegisterView;
  readonly fieldKey: string;
  readonly build: BuildView;
  readonly me: Me;
  readonly counts: readonly FieldCount[];
  /** How the person looks at the register; without it nothing is arranged here. */
  readonly arranging?: Arranging;
  close(): void;
  /** Asks for the slip of the arrangement. */
  arrange?(): void;
  /** Asks for the slip that makes the column a list. */
  gather?(): void;
}

export function FieldSlip({ register, fieldKey, build, me, counts, arranging, close, arrange, gather }: FieldSlipProps) {
  const field = register.fields.find(({ key }) => key === fieldKey);
  if (!field) return <Text color="inkSoft">This field is not there any more.</Text>;
  const designs = mayDesign(me.role);
  const place = { field, register, build, me };
  return (
    <>
      <HStack justify="space-between" align="start">
        {designs ? (
          <HeadingName field={field} />
        ) : (
          <Heading as="h2" fontSize="lg">
            {field.heading}
          </Heading>
        )}
        <IconButton aria-label="Close" size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
          <X size={14} />
        </IconButton>
      </HStack>
      {arranging && arrange && <ArrangeField field={field} register={register} arranging={arranging} more={arrange} />}
      {designs ? (
        <KindChoice key={field.kind} field={field} />
      ) : (
        <Text color="inkSoft" mb="3">
          holds {kindLabel(field.kind)}
        </Text>
      )}
      {designs ? (
        <RuleEditor place={place} held={counts.find(({ fieldId }) => fieldId === field.id)?.held} close={close} gather={gather} />
      ) : field.rule ? (
        <RuleSentence rule={field.rule} place={place} />
      ) : (
        <Text>Takes {anyOfKind(field.kind)}; may be blank.</Text>
      )}
      {register.closing && (
        <Text mt="3" color="inkSoft">
          {closingSentence(register.closing, register.fields, me.house.locale)} Only administrators change it then.
        </Text>
      )}
      {designs && <GroupName key={field.group} field={field} register={register} />}
      <AskedIn field={field} register={register} build={build} designs={designs} />
      <Standing field={field} counts={counts} />
    </>
  );
}

/** The nearest ways of looking at a field otherwise. */
function ArrangeField({
  field,
  register,
  arranging,
  more,
}: {
  field: FieldView;
  register: RegisterView;
  arranging: Arranging;
  more: () => void;
}) {
  const { arrangement, set } = arranging;
  const sorts = (direction: 'up' | 'down') => arrangement.sort[0]?.field === field.key && arrangement.sort[0].direction === direction;
  const button = (words: string, pressed: boolean, act: () => void) => (
    <Button size="2xs" variant={pressed ? 'solid' : 'outline'} aria-pressed={pressed} onClick={act}>
      {words}
    </Button>
  );
  const toggle = (direction: 'up' | 'down') =>
    set(sorts(direction) ? { ...arrangement, sort: arrangement.sort.slice(1) } : sortedBy(arrangement, { field: field.key, direction }));
  return (
    <HStack gap="1" wrap="wrap" my="2" role="group" aria-label={`My view of ${field.heading}`}>
      {button('Sort up', sorts('up'), () => toggle('up'))}
      {button('Sort down', sorts('down'), () => toggle('down'))}
      {button(
        'Show only …',
        arrangement.only.some((only) => only.field === field.key),
        more,
      )}
      {arranging.fields.length > 1 && button('Hide', false, () => set(showing(arrangement, register.fields, field.key, { hidden: true })))}
    </HStack>
  );
}

function HeadingName({ field }: { field: FieldView }) {
  const [renaming, setRenaming] = useState(false);
  const [changeField] = useChangeFieldMutation();
  const attempt = useTry();
  const pencil = useId();
  if (!renaming) {
    return (
      <HStack>
        <Heading as="h2" fontSize="lg">
          {field.heading}
        </Heading>
        <IconButton id={pencil} aria-label="Rename the field" size="2xs" variant="ghost" onClick={() => setRenaming(true)}>
          <Pencil size={13} />
        </IconButton>
      </HStack>
    );
  }
  return (
    <RenameBox
      label="Heading"
      name={field.heading}
      size="sm"
      backTo={pencil}
      rename={async (title) => (await attempt(changeField({ id: field.id, change: { title } }).unwrap())) !== undefined}
      close={() => setRenaming(false)}
    />
  );
}

/** The heading under which the field stands in a record. */
function GroupName({ field, register }: { field: FieldView; register: RegisterView }) {
  const [group, setGroup] = useState(field.group);
  const [changeField] = useChangeFieldMutation();
  const attempt = useTry();
  const id = useId();
  const known = [...new Set(register.fields.map((other) => other.group).filter(Boolean))];
  const save = () => {
    if (group.trim() !== field.group) void attempt(changeField({ id: field.id, change: { group } }).unwrap());
  };
  return (
    <HStack mt="4" gap="2">
      <Text asChild flexShrink={0}>
        <label htmlFor={id}>In a record, under</label>
      </Text>
      <Input
        id={id}
        size="xs"
        bg="card"
        borderColor="slate.border"
        list={`${id}-known`}
        placeholder="no heading"
        value={group}
        onChange={(event) => setGroup(event.target.value)}
        onBlur={save}
        onKeyDown={(event) => event.key === 'Enter' && save()}
      />
      <datalist id={`${id}-known`}>
        {known.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </HStack>
  );
}

/** The forms that a change of this field or its rule touches. */
function AskedIn({ field, register, build, designs }: { field: FieldView; register: RegisterView; build: BuildView; designs: boolean }) {
  const forms = build.forms.filter((form) => form.registerId === register.id && form.fields.includes(field.key));
  if (forms.length === 0) return null;
  return (
    <Text mt="4">
      Asked by {forms.length === 1 ? 'the form' : 'the forms'}{' '}
      {forms.map(({ id, title, published }, at) => (
        <span key={id}>
          {at > 0 && ', '}
          {designs ? (
            <Link to={`/forms/${id}`} style={{ textDecoration: 'underline', textUnderlineOffset: '3px' }}>
              {title}
            </Link>
          ) : (
            title
          )}
          {published === null && ' (not published)'}
        </span>
      ))}
      ; what the rule says holds there at once.
    </Text>
  );
}

function Standing({ field, counts }: { field: FieldView; counts: readonly FieldCount[] }) {
  const count = counts.find(({ fieldId }) => fieldId === field.id);
  if (!count) return null;
  return (
    <Box mt="4" p="3" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <Text fontWeight="bold">
        {entriesWords(count.held)} {count.held === 1 ? 'holds' : 'hold'} a value
      </Text>
      <Text color="inkSoft">
        {number.format(count.held - count.outside + count.blank)} right,{' '}
        {count.outside > 0 ? (
          <Box asChild color="amber.fg" fontWeight="bold">
            <Link to={`?outside=${field.key}&field=${field.key}`}>
              {number.format(count.outside)} outside{count.blank > 0 && `, ${number.format(count.blank)} of them blank`}
            </Link>
          </Box>
        ) : (
          'none outside'
        )}
      </Text>
    </Box>
  );
}

/** `held`: how many entries hold a value in the field, where that is known. */
function RuleEditor({
  place,
  held,
  close,
  gather,
}: {
  place: RulePlace;
  held: number | undefined;
  close: () => void;
  gather: (() => void) | undefined;
}) {
  const { field, register, build, me } = place;
  // Rules are for fields in which clerks enter data.
  const isSource = build.sheets.find(({ id }) => id === register.sheetId)?.kind === 'source';
  const half = useHalfMade(`rule ${field.id}`, ruleMark(field.rule));
  const { value: drafted, set: setDrafted } = half;
  const [history, setHistory] = useState(false);
  const [setRule] = useSetRuleMutation();
  const [clearRule] = useClearRuleMutation();
  const [remove] = useDeleteFieldMutation();
  const attempt = useTry();
  const notice = useNotice();
  const rule = drafted ?? field.rule;
  const likely = build.catalogs.find(({ id }) => id === likelyCatalog(build, field.heading));
  const catalogs = useCatalogs([catalogIdOf(rule) ?? []].flat());

  const save = async () => {
    if (
      !drafted ||
      (await attempt(
        setRule({ fieldId: field.id, rule: { ...drafted, seen: half.seen } })
          .unwrap()
          .then(() => true),
      )) !== true
    )
      return;
    half.drop();
    notice('done', `The rule of ${field.heading} holds from now on.`);
  };
  const clear = async () => {
    if (
      await attempt(
        clearRule(field.id)
          .unwrap()
          .then(() => true),
      )
    )
      notice('done', `${field.heading} takes ${anyOfKind(field.kind)} again; its values stay as they are.`);
    half.drop();
  };
  const drop = async () => {
    if (!(await attempt(remove(field.id).unwrap()))) return;
    notice('done', `The field ${field.heading} is deleted.`);
    close();
  };
  return (
    <>
      {rule ? (
        <>
          {half.isOutdated && (
            <ChangedMeanwhile
              words={`Somebody else has set another rule for ${field.heading} since you began.`}
              startFromTheirs={half.drop}
              keepMine={half.keepMine}
            />
          )}
          <RuleSentence rule={rule} place={place} onChange={setDrafted} />
          {drafted && <DraftImpact place={place} rule={drafted} />}
          {drafted && (
            <HStack mt="3">
              <Button variant="solid" size="sm" disabled={half.isOutdated} onClick={() => void save()}>
                Set this rule
              </Button>
              <Button size="sm" onClick={half.drop}>
                Cancel
              </Button>
            </HStack>
          )}
          <TrialEntry key={JSON.stringify(rule)} rule={rule} place={place} catalogs={catalogs} />
        </>
      ) : isSource ? (
        <Text fontSize="md">Takes {anyOfKind(field.kind)}; may be blank.</Text>
      ) : (
        <Stack gap="3" align="start">
          <Text fontSize="md">Takes {anyOfKind(field.kind)}; may be blank.</Text>
          {likely && (
            <Button variant="solid" size="sm" onClick={() => setDrafted(catalogRuleFor(likely.id, place, null))}>
              Take the values of {likely.title}
            </Button>
          )}
          <NewChoices place={place} />
          {build.catalogs.length > 0 && (
            <Box w="100%">
              <Text fontWeight="bold" mb="1">
                Or values from a catalog
              </Text>
              <Select
                label="Take its values from"
                value=""
                options={[['', 'choose the catalog …'], ...build.catalogs.map(({ id, title }) => [id, title] as const)]}
                onChoose={(id) => id !== '' && setDrafted(catalogRuleFor(id, place, null))}
              />
            </Box>
          )}
          {field.kind === 'text' && gather && (
            <Button size="sm" onClick={gather}>
              Make this column a list
            </Button>
          )}
          <Stack gap="1" align="start" role="group" aria-label="A rule of another kind">
            <Text color="inkSoft">or let it take</Text>
            {rulesFor(field.kind)
              .filter((kind) => !hasList(newRule(kind)))
              .map((kind) => (
                <Button key={kind} onClick={() => setDrafted(ruleOfKind(kind, null, place))}>
                  {ruleTitle(kind)}
                </Button>
              ))}
          </Stack>
        </Stack>
      )}
      <HStack mt="4" gap="2" wrap="wrap">
        {field.rule && !drafted && <Button onClick={() => void clear()}>Clear the rule</Button>}
        <Button aria-expanded={history} onClick={() => setHistory(!history)}>
          History
        </Button>
        {!drafted && (
          <Confirm
            ask="Delete the field"
            about={
              held === 0
                ? `No entry holds a value in ${field.heading}. It is gone for everybody.`
                : `${field.heading} is gone for everybody, with what ${held === undefined ? 'the entries hold' : held === 1 ? 'one entry holds' : `${number.format(held)} entries hold`} in it.`
            }
            act="Delete the field"
            onConfirm={() => void drop()}
          />
        )}
      </HStack>
      {history && (
        <Box mt="3">
          <MadeAList field={field} />
          <RuleHistory fieldId={field.id} build={build} me={me} />
        </Box>
      )}
    </>
  );
}

/** What the draft would find in the entries as they stand, before it is set. */
function DraftImpact({ place, rule }: { place: RulePlace; rule: Rule }) {
  const { currentData: trial, error } = useRuleTrialQuery({ fieldId: place.field.id, rule });
  return (
    <Box
      mt="3"
      p="3"
      borderWidth="1px"
      borderColor={trial && trial.outside > 0 ? 'amber.border' : 'line'}
      bg={trial && trial.outside > 0 ? 'amber.subtle' : 'paper'}
      rounded="l3"
      role="status"
    >
      <Text fontWeight="bold">Not set yet</Text>
      {!trial && (error ? <Text color="brick.fg">{errorWords(error)}</Text> : <Text color="inkSoft">Counting …</Text>)}
      {trial?.faults.map(({ part, message }) => (
        <Text key={part + message} color="brick.fg" role="alert">
          {message}
        </Text>
      ))}
      {trial && trial.outside === 0 && (
        <Text>
          {trial.held === 0
            ? 'No entry holds a value yet.'
            : `${trial.held === 1 ? 'The one entry that holds a value' : `All ${entriesWords(trial.held)} that hold a value`} would be right.`}
        </Text>
      )}
      {trial && trial.outside > 0 && (
        <Text>
          {entriesWords(trial.outside)} would be outside:{' '}
          {trial.examples.map(({ value, entries }) => `${value === '' ? 'blank' : `“${value}”`} (${number.format(entries)})`).join(', ')}.
          They stay as they are and can be listed.
        </Text>
      )}
    </Box>
  );
}
