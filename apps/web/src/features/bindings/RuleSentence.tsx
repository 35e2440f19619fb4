// The rule in one plain sentence whose parts can be clicked and changed; read-only without `onChange`.
import { Box, Button, Input, Popover, Portal, Stack, Text } from '@chakra-ui/react';
import { ruleSentence, type CatalogRule, type RulePart } from '@dellum/core';
import type { CatalogView } from '@dellum/contract';
import { useState, type ReactNode } from 'react';

interface RuleSentenceProps {
  readonly rule: CatalogRule;
  readonly catalogs: readonly CatalogView[];
  onChange?(rule: CatalogRule): void;
}

export function RuleSentence({ rule, catalogs, onChange }: RuleSentenceProps) {
  const titles = new Map(catalogs.map(({ id, title }) => [id, title]));
  return (
    <Text fontSize="md" lineHeight="1.95">
      {ruleSentence(rule, titles).map(({ text, edits }, at) =>
        edits && onChange ? (
          <SentencePopover key={at} words={text} edits={edits} rule={rule} catalogs={catalogs} onChange={onChange} />
        ) : edits ? (
          <b key={at}>{text}</b>
        ) : (
          <span key={at}>{text}</span>
        ),
      )}
    </Text>
  );
}

const labels: { readonly [Part in RulePart]: string } = {
  catalogId: 'Values come from',
  mayBeBlank: 'When it is left blank',
  others: 'Any other value is',
  hint: 'Hint shown on arrival',
  refusalText: 'Said when a value is refused',
};

interface PartProps {
  readonly words: string;
  readonly edits: RulePart;
  readonly rule: CatalogRule;
  readonly catalogs: readonly CatalogView[];
  onChange(rule: CatalogRule): void;
}

function SentencePopover({ words, edits, rule, catalogs, onChange }: PartProps) {
  const [open, setOpen] = useState(false);
  const choose = (change: Partial<CatalogRule>) => {
    onChange({ ...rule, ...change });
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={(details) => setOpen(details.open)} positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        {/* A span, since a button cannot break over two lines as words of a sentence do. */}
        <Box
          as="span"
          role="button"
          tabIndex={0}
          fontWeight="bold"
          color="damson.fg"
          textDecoration="underline 2px"
          textUnderlineOffset="5px"
          cursor="pointer"
          title={labels[edits]}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            setOpen(true);
          }}
        >
          {words}
        </Box>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="280px">
            <Popover.Body p="3">
              <Popover.Title fontSize="xs" color="inkSoft" mb="2">
                {labels[edits]}
              </Popover.Title>
              <PartEditor edits={edits} rule={rule} catalogs={catalogs} choose={choose} />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

interface PartEditorProps {
  readonly edits: RulePart;
  readonly rule: CatalogRule;
  readonly catalogs: readonly CatalogView[];
  choose(change: Partial<CatalogRule>): void;
}

function PartEditor({ edits, rule, catalogs, choose }: PartEditorProps): ReactNode {
  switch (edits) {
    case 'catalogId':
      return <Choices options={catalogs.map(({ id, title, note }) => ({ key: id, words: title, about: note, chosen: id === rule.catalogId, choose: () => choose({ catalogId: id }) }))} />;
    case 'mayBeBlank':
      return (
        <Choices
          options={[
            { key: 'may', words: 'it may be blank', about: 'A clerk can leave it empty.', chosen: rule.mayBeBlank, choose: () => choose({ mayBeBlank: true }) },
            { key: 'must', words: 'it must not be blank', about: 'Emptying the cell is refused.', chosen: !rule.mayBeBlank, choose: () => choose({ mayBeBlank: false }) },
          ]}
        />
      );
    case 'others':
      return (
        <Choices
          options={[
            { key: 'refuse', words: 'refused', about: 'Only values of the catalog are stored.', chosen: rule.others === 'refuse', choose: () => choose({ others: 'refuse' }) },
            { key: 'accept', words: 'accepted', about: 'The catalog helps, but anything goes; nothing is ever outside.', chosen: rule.others === 'accept', choose: () => choose({ others: 'accept' }) },
          ]}
        />
      );
    case 'hint':
      return <TextPart label={labels.hint} text={rule.hint} blankWords="Without a hint" save={(hint) => choose({ hint })} />;
    case 'refusalText':
      return <TextPart label={labels.refusalText} text={rule.refusalText} blankWords="In Dellum’s own words" save={(refusalText) => choose({ refusalText })} />;
  }
}

interface Choice {
  readonly key: string;
  readonly words: string;
  readonly about: string;
  readonly chosen: boolean;
  choose(): void;
}

function Choices({ options }: { options: readonly Choice[] }) {
  return (
    <Stack gap="1" maxH="260px" overflow="auto">
      {options.map(({ key, words, about, chosen, choose }) => (
        <Button key={key} size="sm" h="auto" py="1.5" variant={chosen ? 'subtle' : 'ghost'} justifyContent="start" textAlign="start" whiteSpace="normal" aria-pressed={chosen} onClick={choose}>
          <Box>
            <Text fontWeight="bold">{words}</Text>
            {about && (
              <Text fontSize="xs" color="inkSoft" fontWeight="normal">
                {about}
              </Text>
            )}
          </Box>
        </Button>
      ))}
    </Stack>
  );
}

function TextPart({ label, text, blankWords, save }: { label: string; text: string; blankWords: string; save: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save(typed.trim());
      }}
    >
      <Stack gap="2">
        <Input size="sm" aria-label={label} value={typed} maxLength={200} onChange={(event) => setTyped(event.target.value)} />
        <Stack direction="row">
          <Button type="submit" size="xs">
            Use these words
          </Button>
          {text !== '' && (
            <Button size="xs" variant="outline" onClick={() => save('')}>
              {blankWords}
            </Button>
          )}
        </Stack>
      </Stack>
    </form>
  );
}
