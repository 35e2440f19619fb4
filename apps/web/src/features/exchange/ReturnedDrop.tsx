// Where a workbook that was filled in, or a table, is dropped. `registerId`: the sheet at which it is brought.
import { bringFile } from '../../data/returnedApi.js';
import { useAppDispatch } from '../../data/store.js';
import { FileDrop } from '../../frame/FileDrop.js';

export function ReturnedDrop({ registerId }: { readonly registerId?: string }) {
  const dispatch = useAppDispatch();
  return (
    <FileDrop
      label="File"
      what="a file"
      about="A workbook (.xlsx, .ods), a table of texts (CSV) or JSON Lines"
      instead="Bring it in parts."
      bring={async ([file]) => `/came-back/${(await dispatch(bringFile(file!, registerId))).id}`}
    />
  );
}
