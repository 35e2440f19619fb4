// The house: how it is called and how it writes dates, numbers and amounts, with an example of each.
import { Box, NativeSelect, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { format, parse, writtenIn, type Locale } from '@dellum/core';
import { ChangeHouseDto, type Me } from '@dellum/contract';
import { useId, type ReactNode } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Page, Waiting } from '../../frame/Page.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice } from '../../frame/useNotice.js';
import { useChangeHouseMutation, useMeQuery } from '../../data/sessionApi.js';

/** Languages that are offered by their own names; each with the region whose ways it follows. */
const languages = [
  'en-GB',
  'en-US',
  'en-IE',
  'de',
  'de-CH',
  'fr',
  'fr-CH',
  'it',
  'es',
  'pt',
  'nl',
  'da',
  'sv',
  'nb',
  'fi',
  'pl',
  'cs',
  'sk',
  'hu',
  'ro',
  'hr',
  'sl',
  'et',
  'lv',
  'lt',
  'el',
  'tr',
];

const nameOf = (type: 'language' | 'currency', code: string): string => {
  const name = new Intl.DisplayNames([type === 'language' ? code : 'en'], { type }).of(code) ?? code;
  return name === code ? code : `${name} (${code})`;
};
const weekday = (day: number, language: string): string =>
  new Intl.DateTimeFormat(language, { weekday: 'long', timeZone: 'UTC' }).format(new Date(Date.UTC(2026, 10, 1 + day)));

type Options = readonly (readonly [value: string, words: string])[];

/** Names of languages and currencies are made once; there are hundreds. */
const languageOptions: Options = languages.map((code) => [code, nameOf('language', code)]);
const currencyOptions: Options = Intl.supportedValuesOf('currency').map((code) => [code, nameOf('currency', code)]);
const zoneOptions: Options = ['UTC', ...Intl.supportedValuesOf('timeZone')].map((zone) => [zone, zone.replaceAll('_', ' ')]);

export function HousePage() {
  const { data: me } = useMeQuery();
  return me ? <HouseForm key={JSON.stringify(me.house)} me={me} /> : <Waiting />;
}

function HouseForm({ me }: { me: Me }) {
  const { language, dateOrder, decimalMark, listMark, currency, timeZone, firstDay } = me.house.locale;
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(ChangeHouseDto, {
    name: me.house.name,
    language,
    dateOrder,
    decimalMark,
    listMark: listMark ?? (decimalMark === ',' ? ';' : ','),
    currency,
    ...(timeZone && { timeZone }),
    ...(firstDay !== undefined && { firstDay }),
  });
  const [save] = useChangeHouseMutation();
  const notice = useNotice();
  const { name, ...chosen } = watch();
  const locale: Locale = { ...me.house.locale, ...chosen };
  const standard = writtenIn(locale.language);
  const set = (change: Omit<ChangeHouseDto, 'name'>) => {
    for (const [member, value] of Object.entries(change)) setValue(member as keyof ChangeHouseDto, value as string, { shouldDirty: true });
  };
  const store = submit(async (house) => {
    await save(house).unwrap();
    notice('done', 'The house writes so from now on. What is stored is as it was.');
  });
  return (
    <Page title="House" about="How this house is called, and how it writes. Changing it never changes what is stored.">
      <form noValidate onSubmit={(event) => void store(event)}>
        <SimpleGrid columns={{ base: 1, lg: 2 }} gap="8" p="5" maxW="900px">
          <Stack gap="4">
            <FormField label="Name of the house" fault={fault('name') ?? problem} {...register('name')} />
            <Choice
              label="Language"
              value={locale.language}
              options={languageOptions}
              choose={(code) => set({ language: code, ...writtenIn(code) })}
              help="Gives the order of dates and the signs below; each can be chosen otherwise."
            />
            <Choice
              label="Order of dates"
              value={locale.dateOrder}
              options={[
                ['dmy', 'day, month, year'],
                ['mdy', 'month, day, year'],
                ['ymd', 'year, month, day'],
              ]}
              choose={(order) => set({ dateOrder: order as Locale['dateOrder'] })}
              usual={standard.dateOrder === locale.dateOrder}
            />
            <Choice
              label="Decimal sign"
              value={locale.decimalMark}
              options={[
                ['.', 'point: 12.5'],
                [',', 'comma: 12,5'],
              ]}
              choose={(mark) => set({ decimalMark: mark as Locale['decimalMark'], listMark: mark === ',' ? ';' : ',' })}
              usual={standard.decimalMark === locale.decimalMark}
            />
            <Choice
              label="Sign between values"
              value={locale.listMark!}
              options={[
                [',', 'comma: low, high'],
                [';', 'semicolon: low; high'],
              ]}
              choose={(mark) => set({ listMark: mark as ',' | ';' })}
              usual={standard.listMark === locale.listMark}
            />
            <Choice
              label="Currency"
              value={locale.currency}
              options={currencyOptions}
              choose={(code) => set({ currency: code })}
              help="Amounts keep their numbers; they are shown in this currency."
            />
            <Choice
              label="Time zone"
              value={locale.timeZone ?? ''}
              options={[...(locale.timeZone ? [] : ([['', 'that of the server']] as const)), ...zoneOptions]}
              choose={(zone) => set({ timeZone: zone })}
              help="Says which day is today."
            />
            <Choice
              label="First day of the week"
              value={String(locale.firstDay ?? 1)}
              options={[1, 6, 0].map((day) => [String(day), weekday(day, locale.language)] as const)}
              choose={(day) => set({ firstDay: Number(day) })}
              usual={standard.firstDay === (locale.firstDay ?? 1)}
            />
            <ActButton
              variant="solid"
              type="submit"
              size="sm"
              alignSelf="start"
              disabled={!formState.isDirty || name?.trim() === ''}
              loading={formState.isSubmitting}
            >
              Save the house
            </ActButton>
          </Stack>
          <Example locale={locale} today={me.house.today} />
        </SimpleGrid>
      </form>
    </Page>
  );
}

/** How the choices look, at once. */
function Example({ locale, today }: { locale: Locale; today: string }) {
  const typed = locale.decimalMark === ',' ? '1234,5' : '1234.5';
  const amount = parse('amount', typed, locale);
  const lines: readonly (readonly [string, ReactNode])[] = [
    ['Today', format('date', today, locale)],
    ['A number', format('number', '1234.5', locale)],
    ['A percentage', format('percent', '0.125', locale)],
    ['An amount', amount.ok ? format('amount', amount.value, locale) : format('amount', '1234', locale)],
    [
      'Choices',
      `low${locale.listMark ?? (locale.decimalMark === ',' ? ';' : ',')} middle${locale.listMark ?? (locale.decimalMark === ',' ? ';' : ',')} high`,
    ],
    ['A week begins on', weekday(locale.firstDay ?? 1, locale.language)],
  ];
  return (
    <Box as="section" aria-label="Example" alignSelf="start" p="4" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <Text fontWeight="bold" mb="2">
        So it is written
      </Text>
      <Stack as="dl" gap="1.5">
        {lines.map(([what, shown]) => (
          <Box key={what} display="flex" justifyContent="space-between" gap="4">
            <Text as="dt" color="inkSoft">
              {what}
            </Text>
            <Text as="dd" fontVariantNumeric="tabular-nums">
              {shown}
            </Text>
          </Box>
        ))}
      </Stack>
    </Box>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: Options;
  readonly help?: string;
  /** False where the language would have it otherwise. */
  readonly usual?: boolean;
  choose(value: string): void;
}

function Choice({ label, value, options, help, usual = true, choose }: ChoiceProps) {
  const id = useId();
  const about = usual ? help : 'Chosen otherwise than the language has it.';
  return (
    <Stack gap="1">
      <Text asChild fontWeight="medium">
        <label htmlFor={id}>{label}</label>
      </Text>
      <NativeSelect.Root size="sm">
        <NativeSelect.Field id={id} value={value} onChange={(event) => choose(event.target.value)}>
          {options.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
      {about && (
        <Text fontSize="xs" color="inkSoft">
          {about}
        </Text>
      )}
    </Stack>
  );
}
