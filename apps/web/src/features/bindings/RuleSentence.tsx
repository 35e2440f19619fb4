// The rule in one plain sentence whose parts can be clicked and changed; read-only without `editing`.
import { Box, Button, HStack, Popover, Portal, Text } from '@chakra-ui/react';
import { popoverSlotRecipe } from '@chakra-ui/react/theme';
import { partsOfRule, ruleSentence, type Rule, type RuleNames, type RulePart } from '@dellum/core';
import { useState, type ReactNode } from 'react';
import { partTitles, RulePartEditor } from './RulePartEditor.js';
import { ruleNames, type RulePlace } from './rulePlace.js';

interface RuleSentenceProps {
  readonly rule: Rule;
  readonly place: RulePlace;
  onChange?(rule: Rule): void;
}

/** What the sentence does not say until it is set; each can be added. */
function partsToAdd(rule: Rule, names: RuleNames): RulePart[] {
  const shown = new Set(ruleSentence(rule, names).flatMap(({ edits }) => edits ?? []));
  return partsOfRule(rule).filter((part) => !shown.has(part));
}

export function RuleSentence({ rule, place, onChange }: RuleSentenceProps) {
  const [more, setMore] = useState(false);
  return (
    <>
      <Text fontSize="md" lineHeight="1.95">
        {ruleSentence(rule, ruleNames(place)).map(({ text, edits }, at) =>
          edits && onChange ? (
            <PartPopover key={at} edits={edits} rule={rule} place={place} onChange={onChange}>
              {/* A span, since a button cannot break over two lines as words of a sentence do. */}
              <Box
                as="span"
                display="inline"
                role="button"
                tabIndex={0}
                fontWeight="bold"
                color="damson.fg"
                textDecoration="underline 2px"
                textUnderlineOffset="5px"
                cursor="pointer"
                title={partTitles[edits]}
              >
                {text}
              </Box>
            </PartPopover>
          ) : edits ? (
            <b key={at}>{text}</b>
          ) : (
            <span key={at}>{text}</span>
          ),
        )}
      </Text>
      {onChange && (
        <HStack wrap="wrap" gap="1" mt="2" role="group" aria-label="More of the rule">
          {!more && (
            <Button size="2xs" variant="ghost" px="0" color="damson.fg" onClick={() => setMore(true)}>
              Say more …
            </Button>
          )}
          {more &&
            partsToAdd(rule, ruleNames(place)).map((part) => (
              <PartPopover key={part} edits={part} rule={rule} place={place} onChange={onChange}>
                <Button size="2xs" colorPalette="slate" rounded="full">
                  {partTitles[part]} …
                </Button>
              </PartPopover>
            ))}
        </HStack>
      )}
    </>
  );
}

interface PartPopoverProps {
  readonly edits: RulePart;
  readonly rule: Rule;
  readonly place: RulePlace;
  readonly children: ReactNode;
  onChange(rule: Rule): void;
}

function PartPopover({ edits, rule, place, children, onChange }: PartPopoverProps) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root
      recipe={popoverSlotRecipe}
      open={open}
      onOpenChange={(details) => setOpen(details.open)}
      positioning={{ placement: 'bottom-start' }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger
        asChild
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          setOpen(true);
        }}
      >
        {children}
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="300px" aria-label={partTitles[edits]}>
            <Popover.Body p="3">
              <Popover.Title fontSize="xs" color="inkSoft" mb="2">
                {partTitles[edits]}
              </Popover.Title>
              <RulePartEditor
                edits={edits}
                rule={rule}
                place={place}
                choose={(next) => {
                  onChange(next);
                  setOpen(false);
                }}
              />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
