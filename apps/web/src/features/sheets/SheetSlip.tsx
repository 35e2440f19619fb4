// The slip beside a sheet: why a value is as it is, a field and its rule, my arrangement, finding, what was refused.
import { catalogIdOf } from '@dellum/core';
import { mayDesign, type BuildView, type FieldCount, type FieldView, type Me, type RegisterView, type Slip } from '@dellum/contract';
import { ArrangeSlip } from '../arrangements/ArrangeSlip.js';
import type { Arranging } from '../arrangements/useArrangement.js';
import { FieldSlip } from '../bindings/FieldSlip.js';
import { WhySlip } from '../bindings/WhySlip.js';
import type { Draft } from '../../data/draftsSlice.js';
import { BringSlip } from '../exchange/BringSlip.js';
import { DownloadSlip } from '../exchange/DownloadSlip.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { ImpactSlip } from '../acts/ImpactSlip.js';
import { GatherSlip } from '../upkeep/GatherSlip.js';
import { FindSlip } from './FindSlip.js';
import { NewField } from './NewField.js';
import { RefusedSlip } from './RefusedSlip.js';
import { mayDownload } from './limitWords.js';
import type { BlockActs } from './useBlockActs.js';
import type { Asked, Shown } from './useShown.js';

interface SheetSlipProps {
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
  readonly shown: Shown;
  readonly why: Asked | undefined;
  /** A change of this sheet that waits for its answers. */
  readonly waiting: Slip | undefined;
  readonly counts: readonly FieldCount[];
  readonly arranging: Arranging;
  readonly arranged: boolean;
  readonly refused: readonly Draft[];
  readonly acts: BlockActs;
  /** The row of an entry, where it is on screen. */
  rowOf(id: string): number | undefined;
  /** Tries a refused text again, mended; true when it was taken. */
  retry(draft: Draft, text: string): boolean;
  show(change: Record<string, string | undefined>): void;
  closeWhy(): void;
  value(field: FieldView, value: string): string;
  goTo(row: number, field: string): void;
  shownAt(row: number, field: string): string | undefined;
  typeAt(row: number, field: string, text: string): void;
}

/** The slip that stands open. */
export function SheetSlip(props: SheetSlipProps) {
  const { register, build, me, shown, why, counts, arranging, acts, show, value } = props;
  const designs = mayDesign(me.role);
  if (props.waiting) return <ImpactSlip key={props.waiting.id} slip={props.waiting} build={build} />;
  const asked = register.fields.find(({ key }) => key === why?.fieldKey);
  if (asked)
    return (
      <WhySlip key={JSON.stringify(why)} field={asked} entry={why?.entry} text={why?.text ?? ''} build={build} close={props.closeWhy} />
    );
  if (shown.adding && designs) return <NewField registerId={register.id} done={(key) => show({ 'new-field': undefined, field: key })} />;
  const close = () => show({ slip: undefined, field: undefined });
  switch (shown.slip) {
    case 'arrange':
      return (
        <ArrangeSlip
          key={shown.chosen ?? ''}
          register={register}
          arranging={arranging}
          counts={counts}
          me={me}
          fieldKey={shown.chosen}
          value={value}
          close={close}
        />
      );
    case 'find':
      return (
        <FindSlip
          register={register}
          fields={arranging.fields}
          arranged={props.arranged}
          mayEdit={register.enters}
          acts={acts}
          value={value}
          goTo={props.goTo}
          shownAt={props.shownAt}
          typeAt={props.typeAt}
          close={close}
        />
      );
    case 'download': {
      const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === register.id));
      if (sheet && !mayDownload(sheet, me))
        return (
          <SlipHead
            title={`Download ${sheet.title}`}
            about="Only administrators download it. Ask one of them for the file."
            close={close}
          />
        );
      const hidden = arranging.fields.length < register.fields.length;
      const moved = arranging.fields.some(({ key }, at) => key !== register.fields[at]?.key);
      const some = {
        words: 'As I have arranged them',
        about: 'the entries and fields I see, in my order',
        wanted: { arranged: true },
        fields: arranging.fields,
      };
      return <DownloadSlip register={register} some={props.arranged || hidden || moved ? some : undefined} close={close} />;
    }
    case 'bring':
      return register.enters ? <BringSlip register={register} close={close} /> : null;
    case 'refused':
      return (
        <RefusedSlip
          register={register}
          refused={props.refused}
          acts={acts}
          rowOf={props.rowOf}
          retry={props.retry}
          goTo={props.goTo}
          close={close}
        />
      );
    case 'gather': {
      const gathered = register.fields.find(({ key, rule }) => key === shown.chosen && catalogIdOf(rule) === undefined);
      if (gathered && designs)
        return <GatherSlip key={gathered.id} field={gathered} build={build} close={() => show({ slip: undefined })} />;
      break;
    }
    case undefined:
  }
  if (!shown.chosen) return null;
  return (
    <FieldSlip
      key={shown.chosen}
      register={register}
      fieldKey={shown.chosen}
      build={build}
      me={me}
      counts={counts}
      arranging={arranging}
      close={() => show({ field: undefined })}
      gather={() => show({ slip: 'gather' })}
      arrange={() => show({ slip: 'arrange' })}
    />
  );
}
