// One of a few ways, each with what it is for.
import { RadioGroup, Stack, Text } from '@chakra-ui/react';

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, words: string, about: string])[];
  choose(value: string): void;
}

export function Choice({ label, value, options, choose }: ChoiceProps) {
  return (
    <RadioGroup.Root size="sm" aria-label={label} value={value} onValueChange={(details) => choose(details.value ?? value)}>
      <Text fontWeight="bold" mb="1">
        {label}
      </Text>
      <Stack gap="2">
        {options.map(([key, words, about]) => (
          <RadioGroup.Item key={key} value={key} alignItems="start">
            <RadioGroup.ItemHiddenInput />
            <RadioGroup.ItemIndicator borderColor="slate.border" mt="1" />
            <RadioGroup.ItemText>
              {words}
              <Text as="span" display="block" color="inkSoft" fontSize="xs">
                {about}
              </Text>
            </RadioGroup.ItemText>
          </RadioGroup.Item>
        ))}
      </Stack>
    </RadioGroup.Root>
  );
}
