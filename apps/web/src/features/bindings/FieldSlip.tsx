// The slip of a field: its rule as a sentence, a trial entry, and what the entries hold.
import { Box, Button, HStack, Heading, IconButton, Input, Stack, Text } from '@chakra-ui/react';
import { kindLabel, type CatalogRule } from '@dellum/core';
import { mayDesign, type BuildView, type FieldCount, type FieldView, type Me, type RegisterView, type RuleDto } from '@dellum/contract';
import { Pencil, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { Confirm } from '../../frame/Confirm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useCatalogs } from '../catalogs/useCatalogs.js';
import { useDeleteFieldMutation, useRenameFieldMutation } from '../sheets/buildApi.js';
import { useClearRuleMutation, useRuleTrialQuery, useSetRuleMutation } from './bindingsApi.js';
import { RuleSentence } from './RuleSentence.js';
import { TrialEntry } from './TrialEntry.js';

const number = new Intl.NumberFormat('en-GB');
const entriesWords = (count: number) => `${number.format(count)} ${count === 1 ? 'entry' : 'entries'}`;

interface FieldSlipProps {
  readonly register: RegisterView;
  readonly fieldKey: string;
  readonly build: BuildView;
  readonly me: Me;
  readonly counts: readonly FieldCount[];
  close(): void;
}

const dtoOf = ({ catalogId, mayBeBlank, others, hint, refusalText }: CatalogRule): RuleDto => ({ catalogId, mayBeBlank, others, hint, refusalText });

export function FieldSlip({ register, fieldKey, build, me, counts, close }: FieldSlipProps) {
  const field = register.fields.find(({ key }) => key === fieldKey);
  if (!field) return <Text color="inkSoft">This field is not there any more.</Text>;
  const designs = mayDesign(me.role);
  return (
    <>
      <HStack justify="space-between" align="start">
        {designs ? <HeadingName field={field} /> : <Heading as="h2" fontSize="lg">{field.heading}</Heading>}
        <IconButton aria-label="Close the slip" size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
          <X size={14} />
        </IconButton>
      </HStack>
      <Text color="inkSoft" mb="3">
        {field.rule ? 'rule of this field' : `holds ${kindLabel(field.kind)}`}
      </Text>
      {designs ? <RuleEditor field={field} build={build} me={me} close={close} /> : field.rule ? <RuleSentence rule={field.rule} catalogs={build.catalogs} /> : <Text>Takes {kindLabel(field.kind)}; may be blank.</Text>}
      <Standing field={field} counts={counts} />
    </>
  );
}

function HeadingName({ field }: { field: FieldView }) {
  const [heading, setHeading] = useState<string>();
  const [rename] = useRenameFieldMutation();
  const attempt = useTry();
  if (heading === undefined) {
    return (
      <HStack>
        <Heading as="h2" fontSize="lg">{field.heading}</Heading>
        <IconButton aria-label="Rename the field" size="2xs" variant="ghost" onClick={() => setHeading(field.heading)}>
          <Pencil size={13} />
        </IconButton>
      </HStack>
    );
  }
  const save = async () => {
    if (await attempt(rename({ id: field.id, title: heading }).unwrap())) setHeading(undefined);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Input size="sm" aria-label="Heading" autoFocus value={heading} onChange={(event) => setHeading(event.target.value)} onKeyDown={(event) => event.key === 'Escape' && setHeading(undefined)} />
    </form>
  );
}

function Standing({ field, counts }: { field: FieldView; counts: readonly FieldCount[] }) {
  const count = counts.find(({ fieldId }) => fieldId === field.id);
  if (!count) return null;
  return (
    <Box mt="4" p="3" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <Text fontWeight="bold">{entriesWords(count.held)} {count.held === 1 ? 'holds' : 'hold'} a value</Text>
      <Text color="inkSoft">
        {number.format(count.held - count.outside)} right,{' '}
        {count.outside > 0 ? (
          <Box asChild color="amber.fg" fontWeight="bold">
            <Link to={`?outside=${field.key}&field=${field.key}`}>{number.format(count.outside)} outside</Link>
          </Box>
        ) : (
          'none outside'
        )}
      </Text>
    </Box>
  );
}

function RuleEditor({ field, build, me, close }: { field: FieldView; build: BuildView; me: Me; close: () => void }) {
  const [drafted, setDrafted] = useState<CatalogRule>();
  const [setRule] = useSetRuleMutation();
  const [clearRule] = useClearRuleMutation();
  const [remove] = useDeleteFieldMutation();
  const attempt = useTry();
  const notice = useNotice();
  const rule = drafted ?? field.rule;
  const ready = useCatalogs(rule ? [rule.catalogId] : [], me.house.today);
  const first = build.catalogs[0];

  const save = async () => {
    if (!drafted || (await attempt(setRule({ fieldId: field.id, rule: dtoOf(drafted) }).unwrap().then(() => true))) !== true) return;
    setDrafted(undefined);
    notice('done', `The rule of ${field.heading} holds from now on.`);
  };
  const clear = async () => {
    if (await attempt(clearRule(field.id).unwrap().then(() => true))) notice('done', `${field.heading} takes any text again; its values stay as they are.`);
    setDrafted(undefined);
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
          <RuleSentence rule={rule} catalogs={build.catalogs} onChange={setDrafted} />
          {drafted && <DraftImpact field={field} rule={drafted} />}
          {drafted && (
            <HStack mt="3">
              <Button size="sm" onClick={() => void save()}>
                Set this rule
              </Button>
              <Button size="sm" variant="outline" onClick={() => setDrafted(undefined)}>
                Leave it
              </Button>
            </HStack>
          )}
          <TrialEntry key={`${rule.catalogId} ${rule.mayBeBlank} ${rule.others} ${rule.refusalText}`} field={field} rule={rule} ready={ready.get(rule.catalogId)} me={me} />
        </>
      ) : field.kind !== 'text' ? (
        <Text>Takes {kindLabel(field.kind)}; may be blank.</Text>
      ) : (
        <Stack gap="3" align="start">
          <Text fontSize="md">Takes any text; may be blank.</Text>
          {first ? (
            <Button size="sm" onClick={() => setDrafted({ kind: 'catalog', catalogId: first.id, mayBeBlank: true, others: 'refuse', hint: '', refusalText: '' })}>
              Bind it to a catalog
            </Button>
          ) : (
            <Text color="inkSoft">Make a catalog first; then this field can take its values from it.</Text>
          )}
        </Stack>
      )}
      <HStack mt="4" gap="2" wrap="wrap">
        {field.rule && !drafted && (
          <Button size="xs" variant="outline" onClick={() => void clear()}>
            Clear the rule
          </Button>
        )}
        {!drafted && <Confirm ask="Delete the field" about={`${field.heading} and what the entries hold in it are gone for everybody.`} act="Delete the field" onConfirm={() => void drop()} />}
      </HStack>
    </>
  );
}

/** What the draft would find in the entries as they stand, before it is set. */
function DraftImpact({ field, rule }: { field: FieldView; rule: CatalogRule }) {
  const { currentData: trial } = useRuleTrialQuery({ fieldId: field.id, rule: dtoOf(rule) });
  return (
    <Box mt="3" p="3" borderWidth="1px" borderColor={trial && trial.outside > 0 ? 'amber.border' : 'line'} bg={trial && trial.outside > 0 ? 'amber.subtle' : 'paper'} rounded="l3" role="status">
      <Text fontWeight="bold">Not set yet</Text>
      {!trial && <Text color="inkSoft">Counting …</Text>}
      {trial && trial.outside === 0 && <Text>All {entriesWords(trial.held)} that hold a value would be right.</Text>}
      {trial && trial.outside > 0 && (
        <Text>
          {number.format(trial.outside)} of {entriesWords(trial.held)} would be outside: {trial.examples.map(({ value, entries }) => `“${value}” (${number.format(entries)})`).join(', ')}. They stay as they are and can be listed.
        </Text>
      )}
    </Box>
  );
}
