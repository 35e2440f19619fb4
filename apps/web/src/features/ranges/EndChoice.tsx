// The three ways a range can end, as cards to choose from.
import { RadioCard } from '@chakra-ui/react';
import { radioCardSlotRecipe } from '@chakra-ui/react/theme';
import { endKind, rangeEndings, type RangeEnding } from '@dellum/core';

interface EndChoiceProps {
  readonly label: string;
  readonly ends: RangeEnding;
  onChoose(ends: RangeEnding): void;
}

export function EndChoice({ label, ends, onChoose }: EndChoiceProps) {
  return (
    <RadioCard.Root
      recipe={radioCardSlotRecipe}
      size="sm"
      value={ends}
      onValueChange={({ value }) => value && onChoose(value as RangeEnding)}
      gap="2"
      aria-label={label}
    >
      {rangeEndings.map((ending) => (
        <RadioCard.Item
          key={ending}
          value={ending}
          borderColor="line"
          _checked={{ bg: 'growth.subtle', borderColor: 'growth.border' }}
          colorPalette="growth"
        >
          <RadioCard.ItemHiddenInput />
          <RadioCard.ItemControl py="2">
            <RadioCard.ItemIndicator borderColor="slate.border" />
            <RadioCard.ItemContent gap="0">
              <RadioCard.ItemText fontWeight="bold">{endKind(ending).title}</RadioCard.ItemText>
              <RadioCard.ItemDescription color="inkSoft" opacity={1} fontSize="xs">
                {endKind(ending).meaning}
              </RadioCard.ItemDescription>
            </RadioCard.ItemContent>
          </RadioCard.ItemControl>
        </RadioCard.Item>
      ))}
    </RadioCard.Root>
  );
}
