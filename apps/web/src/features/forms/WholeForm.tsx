// The slip of the form as a whole: its words, its versions, and the links by which people without an account fill it.
import { HStack, Input, Stack, Text } from '@chakra-ui/react';
import { format } from '@dellum/core';
import type { FormView, Me } from '@dellum/contract';
import { Link2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { ActButton } from '../../frame/ActButton.js';
import { Confirm } from '../../frame/Confirm.js';
import { ShownOnce } from '../../frame/ShownOnce.js';
import { useTry } from '../../frame/useNotice.js';
import { DayField } from '../../picker/DayField.js';
import { useCloseLinkMutation, useMakeLinkMutation } from '../../data/formsApi.js';
import { SlipHeading, Worded } from './LayoutSlip.js';
import type { Laying } from './useLaying.js';

export function WholeForm({ form, laying, me }: { form: FormView; laying: Laying; me: Me }) {
  const { layout, title, change } = laying;
  return (
    <Stack gap="6">
      <Stack gap="3">
        <SlipHeading>The form</SlipHeading>
        <Worded label="Title" value={title} onChange={(next) => change({ title: next })} />
        <Worded label="Said at the top" value={layout.intro} lines={3} onChange={(intro) => change({ layout: { ...layout, intro } })} />
        <Worded
          label="Said when an entry is stored"
          value={layout.thanks}
          lines={2}
          onChange={(thanks) => change({ layout: { ...layout, thanks } })}
        />
      </Stack>
      <Versions form={form} me={me} />
      {form.published !== null && <Links form={form} me={me} />}
    </Stack>
  );
}

function Versions({ form, me }: { form: FormView; me: Me }) {
  return (
    <Stack as="section" aria-label="Versions" gap="1">
      <SlipHeading>Versions</SlipHeading>
      {form.versions.length === 0 && (
        <Text color="inkSoft">Not published yet. What is published stays as it is; entries remember the version they came through.</Text>
      )}
      {form.versions.map(({ version, at, by, filled }) => (
        <HStack key={version} justify="space-between" gap="2">
          <Text>
            <Link to={`/forms/${form.id}/fill/${version}`} style={{ textDecoration: 'underline', textUnderlineOffset: '3px' }}>
              Version {version}
            </Link>
            {version === form.published && ', filled now'}
          </Text>
          <Text color="inkSoft" fontSize="xs" textAlign="end">
            {by}, {format('date', at.slice(0, 10), me.house.locale)}; {filled} {filled === 1 ? 'entry' : 'entries'}
          </Text>
        </HStack>
      ))}
    </Stack>
  );
}

function Links({ form, me }: { form: FormView; me: Me }) {
  const [expires, setExpires] = useState('');
  const [perHour, setPerHour] = useState('20');
  const [address, setAddress] = useState<string>();
  const [make, { isLoading }] = useMakeLinkMutation();
  const [close] = useCloseLinkMutation();
  const attempt = useTry();
  const open = async () => {
    const made = await attempt(make({ id: form.id, link: { expires, perHour: Number(perHour) } }).unwrap());
    if (made) setAddress(`${window.location.origin}/open/${made.token}`);
  };
  const over = (link: FormView['links'][number]) => link.closed || new Date(link.expires) <= new Date();
  return (
    <Stack as="section" aria-label="Links" gap="2">
      <SlipHeading>Without an account</SlipHeading>
      <Text fontSize="xs" color="inkSoft">
        Whoever has a link fills this form and sees the values that it offers; nothing else of the house.
      </Text>
      <HStack align="end" gap="2">
        <DayField label="Works until" size="xs" from={me.house.today} day={expires} onDay={setExpires} onWrong={() => setExpires('')} />
        <Stack gap="1" w="92px">
          <Text asChild fontSize="xs" color="inkSoft">
            <label htmlFor="link-per-hour">Entries an hour</label>
          </Text>
          <Input
            id="link-per-hour"
            inputMode="numeric"
            size="xs"
            bg="card"
            borderColor="slate.border"
            value={perHour}
            onChange={(event) => setPerHour(event.target.value)}
          />
        </Stack>
        <ActButton loading={isLoading} disabled={expires === ''} onClick={() => void open()}>
          <Link2 size={13} aria-hidden /> Make a link
        </ActButton>
      </HStack>
      {address && <ShownOnce text={address} what="link" />}
      {form.links.map((link) => (
        <HStack key={link.id} justify="space-between" gap="2" borderTopWidth="1px" borderColor="lineSoft" pt="1.5">
          <Text fontSize="xs" color={over(link) ? 'inkSoft' : undefined}>
            {link.closed ? 'Closed' : over(link) ? 'Over since' : 'Until'}{' '}
            {!link.closed && format('date', link.expires.slice(0, 10), me.house.locale)}, {link.perHour} an hour; {link.filled}{' '}
            {link.filled === 1 ? 'entry' : 'entries'} so far. Made by {link.by}.
          </Text>
          {!over(link) && (
            <Confirm
              ask="Close"
              about="Whoever has this link cannot fill the form by it any more. The entries stay."
              act="Close the link"
              onConfirm={() => void attempt(close({ id: form.id, linkId: link.id }).unwrap())}
            />
          )}
        </HStack>
      ))}
    </Stack>
  );
}
