// Two values that look alike may be two things: said here once, they are not brought up again.
import { Button } from '@chakra-ui/react';
import { toldApart, type TellsApart, type ValuePair } from '@dellum/core';
import { useMemo } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useTellApartMutation } from '../../data/rangesApi.js';

/** Which values are known to be two things. */
export function useApart(): TellsApart {
  const { data: build } = useBuildQuery();
  const pairs = build?.toldApart;
  return useMemo(() => toldApart(pairs?.map(({ values }) => values) ?? []), [pairs]);
}

export function TellApart({ values: [one, other] }: { values: ValuePair }) {
  const [tellApart] = useTellApartMutation();
  const attempt = useTry();
  const notice = useNotice();
  const tell = async () => {
    if (await attempt(tellApart({ one, other }).unwrap()))
      notice('done', `“${one}” and “${other}” are two things. They are not brought up again; Upkeep lists such pairs.`);
  };
  return (
    <Button colorPalette="slate" onClick={() => void tell()}>
      They are two things
    </Button>
  );
}
