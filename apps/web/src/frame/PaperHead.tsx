// What stands at the head of a page on paper: the house, what it is, and the day it was printed.
import { HStack, Text } from '@chakra-ui/react';
import type { Me } from '@dellum/contract';
import { format } from '@dellum/core';

export function PaperHead({ me, what }: { me: Me; what: string }) {
  return (
    <HStack className="only-printed" justify="space-between" borderBottomWidth="1px" borderColor="line" pb="1" mb="2">
      <Text fontWeight="bold">{me.house.name}</Text>
      <Text>{what}</Text>
      <Text>{format('date', me.house.today, me.house.locale)}</Text>
    </HStack>
  );
}
