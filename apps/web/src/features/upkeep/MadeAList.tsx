// When a column was made the list that it is, and the way back to what it was before.
import { Box, Text } from '@chakra-ui/react';
import type { FieldView } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useGatheredQuery, useUngatherMutation } from '../../data/upkeepApi.js';
import { moment } from '../../frame/written.js';

export function MadeAList({ field }: { field: FieldView }) {
  const { data: gathered } = useGatheredQuery(field.id);
  const [ungather, { isLoading }] = useUngatherMutation();
  const attempt = useTry();
  const notice = useNotice();
  if (!gathered) return null;
  const back = async () => {
    const done = await attempt(ungather(field.id).unwrap());
    if (!done) return;
    const stays =
      done.kept.length > 0
        ? ` ${done.kept.join(' and ')} stay, since they are used elsewhere.`.replace(/ \w/u, (start) => start.toUpperCase())
        : '';
    notice('done', `${field.heading} is what it was before; its entries get their spellings back.${stays}`);
  };
  return (
    <Box borderTopWidth="1px" borderColor="line" pt="2" mb="2">
      <Text color="inkSoft" fontSize="xs">
        {moment.format(new Date(gathered.at))}, {gathered.by}
      </Text>
      <Text>
        Made a list; {gathered.spellings} {gathered.spellings === 1 ? 'spelling follows' : 'spellings follow'} it.
      </Text>
      <ActButton size="2xs" variant="ghost" px="0" loading={isLoading} disabled={gathered.following} onClick={() => void back()}>
        {gathered.following ? 'Entries still follow' : 'Take the list back'}
      </ActButton>
    </Box>
  );
}
