// A source sheet: lists and tables side by side, each independent of its neighbours, with the ranges over them.
import { Button, Flex, HStack, Text } from '@chakra-ui/react';
import { liesOver } from '@dellum/core';
import { mayDesign, registersOf, type BuildView, type Me, type RegisterView, type SheetView, type Slip } from '@dellum/contract';
import { Redo2, Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { LineageStrip } from '../../frame/LineageStrip.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import type { Block } from '../../grid/index.js';
import { FieldSlip } from '../bindings/FieldSlip.js';
import { useRangeLineageQuery } from '../../data/catalogsApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { limitWords } from '../sheets/limitWords.js';
import { SheetMenu } from '../sheets/SheetMenu.js';
import { ImpactSlip } from '../acts/ImpactSlip.js';
import { NewRegister } from './NewRegister.js';
import { PasteSlip } from './PasteSlip.js';
import { RegisterColumn, type Pasted } from './RegisterColumn.js';
import { RegisterSlip } from './RegisterSlip.js';
import { nothingTyped } from './typedAhead.js';
import { useAgainMutation, useCanAgainQuery, useSlipsQuery } from '../../data/sourcesApi.js';
import { useRegister, useTold, type SourceRegister } from '../acts/useRegister.js';
import { errorWords } from '../../data/problem.js';

const noSlips: readonly Slip[] = [];

export function SourceSheetPage() {
  const { sheetId } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const sheet = build.sheets.find(({ id, kind }) => id === sheetId && kind === 'source');
  if (!sheet)
    return (
      <EmptyState title="This source sheet is not there">
        It may have been deleted, or it is not shown to you. <Way to="/sources">Choose another one</Way>
      </EmptyState>
    );
  return <SourceSheet key={sheet.id} sheet={sheet} build={build} me={me} />;
}

interface Chosen {
  readonly registerId: string;
  readonly block: Block;
}

function SourceSheet({ sheet, build, me }: { sheet: SheetView; build: BuildView; me: Me }) {
  const designs = mayDesign(me.role);
  const [search, setSearch] = useSearchParams();
  const { data: slips = noSlips } = useSlipsQuery(undefined, { skip: !designs });
  const [sendAgain] = useAgainMutation();
  const { currentData: can } = useCanAgainQuery(sheet.id, { skip: !designs });
  const told = useTold();
  const named = build.ranges.find(({ id }) => id === search.get('range'));
  const [selected, setSelected] = useState<Chosen>();
  const [field, setField] = useState<{ registerId: string; key: string }>();
  const [pasted, setPasted] = useState<Pasted>();
  const [made, setMade] = useState<string>();
  const [ahead, setAhead] = useState(nothingTyped);
  const registerId = selected?.registerId ?? search.get('list') ?? named?.stretches[0]?.registerId ?? sheet.registers[0]?.id;
  const register = sheet.registers.find(({ id }) => id === registerId);
  const ranges = build.ranges.filter((range) => liesOver(range, registerId ?? ''));
  const range = ranges.find(({ id }) => id === named?.id) ?? ranges[0];
  const { currentData: lineage } = useRangeLineageQuery(range?.id ?? '', { skip: !range || !designs });
  const waiting = slips.find(({ proposal }) => registersOf(proposal).some((id) => sheet.registers.some((known) => known.id === id)));
  const row = Number(search.get('row') ?? 0);
  const block = selected?.block ?? (row > 0 ? { top: row - 1, bottom: row - 1, left: 0, right: 0 } : undefined);

  const choose = (id: string, next: Block) => {
    setSelected({ registerId: id, block: next });
    setField(undefined);
    if (search.size > 0) setSearch({}, { replace: true });
  };
  const again = (as: 'undo' | 'redo') => void told(sendAgain({ sheetId: sheet.id, as }).unwrap());
  const slipOf = (): ReactNode => {
    if (!designs) return undefined;
    if (waiting) return <ImpactSlip key={waiting.id} slip={waiting} build={build} />;
    const from = pasted && sheet.registers.find(({ id }) => id === pasted.registerId);
    if (pasted && from)
      return (
        <With
          register={from}
          build={build}
          slips={slips}
          draw={(source) => <PasteSlip pasted={pasted} source={source} done={() => setPasted(undefined)} />}
        />
      );
    const of = field && sheet.registers.find(({ id }) => id === field.registerId);
    if (field && of)
      return (
        <FieldSlip key={field.key} register={of} fieldKey={field.key} build={build} me={me} counts={[]} close={() => setField(undefined)} />
      );
    return (
      register && (
        <With
          key={register.id}
          register={register}
          build={build}
          slips={slips}
          draw={(source) => <RegisterSlip source={source} build={build} block={block} chosenRange={range?.id} />}
        />
      )
    );
  };
  return (
    <Page
      title={sheet.title}
      about={sheet.note || 'A source sheet: lists and tables side by side, each on its own.'}
      strip={range && lineage && <LineageStrip lineage={lineage} />}
      actions={
        designs && (
          <>
            <Button disabled={!can?.undo} onClick={() => again('undo')} title="Ctrl Z">
              <Undo2 size={13} aria-hidden /> Undo
            </Button>
            <Button disabled={!can?.redo} onClick={() => again('redo')} title="Ctrl Y">
              <Redo2 size={13} aria-hidden /> Redo
            </Button>
            <SheetMenu sheet={sheet} build={build} />
          </>
        )
      }
      slip={slipOf()}
    >
      {sheet.shown && designs && (
        <HStack px="5" pt="3" color="inkSoft">
          <Text>{limitWords(sheet, build) ?? 'Clerks and readers may look at this sheet.'}</Text>
        </HStack>
      )}
      <Flex p="5" gap="4" align="start" minW="max-content">
        {sheet.registers.map((own) => (
          <With
            key={own.id}
            register={own}
            build={build}
            slips={slips}
            draw={(source) => (
              <RegisterColumn
                source={source}
                build={build}
                mayChange={designs}
                takesFocus={own.id === made}
                typedAhead={own.id === ahead.into ? ahead : undefined}
                onTypedAhead={setAhead}
                chosen={own.id === registerId && designs}
                chosenRange={own.id === registerId ? range?.id : undefined}
                chosenField={field?.registerId === own.id ? field.key : undefined}
                onSelect={(next) => choose(own.id, next)}
                onField={(key) => designs && setField({ registerId: own.id, key })}
                onPasted={setPasted}
                onAgain={again}
              />
            )}
          />
        ))}
        {designs && (
          <NewRegister
            sheet={sheet}
            ahead={ahead}
            onAhead={setAhead}
            made={(id) => {
              setMade(id);
              setAhead((before) => (before.making ? { ...before, into: id } : before));
              setSelected(undefined);
              setSearch({ list: id }, { replace: true });
            }}
          />
        )}
      </Flex>
    </Page>
  );
}

interface WithProps {
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly slips: readonly Slip[];
  draw(source: SourceRegister): ReactNode;
}

/** Draws with the register once its entries are there. */
function With({ register, build, slips, draw }: WithProps) {
  const source = useRegister(register, build, slips);
  return source ? draw(source) : <Waiting />;
}
