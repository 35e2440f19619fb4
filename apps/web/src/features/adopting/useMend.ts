// Changes of a proposal by hand; each is kept at once, and everybody who looks at it sees it.
import type { MendColumnDto, MendListDto, MendSpellingsDto, MendTableDto } from '@dellum/contract';
import { useMendAdoptionMutation } from '../../data/adoptionsApi.js';
import { useNotice, useTry } from '../../frame/useNotice.js';

export function useMend(id: string) {
  const [send] = useMendAdoptionMutation();
  const attempt = useTry();
  const notice = useNotice();
  const table = (mend: MendTableDto) => void attempt(send({ id, of: 'tables', mend }).unwrap());
  return {
    table,
    column: (mend: MendColumnDto) => void attempt(send({ id, of: 'columns', mend }).unwrap()),
    list: (mend: MendListDto) => void attempt(send({ id, of: 'lists', mend }).unwrap()),
    spellings: (mend: MendSpellingsDto) => void attempt(send({ id, of: 'spellings', mend }).unwrap()),
    /** The headings stand in another row, as it is typed. */
    heading: (of: string, typed: string) => {
      const row = Number(typed);
      if (Number.isInteger(row) && row >= 1) table({ table: of, heading: row });
      else notice('refused', `“${typed}” is no row. Type the number of the row in which the headings stand.`);
    },
  };
}
