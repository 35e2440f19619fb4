// The lineage strip: source → catalog → fields → entries, each a link with its count.
import { Box, Flex, HStack, Text } from '@chakra-ui/react';
import type { Lineage } from '@dellum/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { number } from './written.js';

const plural = (count: number, one: string, many = `${one}s`) => `${number.format(count)} ${count === 1 ? one : many}`;

export function StripStage({ name, children, first }: { name: string; children: ReactNode; first?: boolean }) {
  return (
    <HStack as="li" gap="0" align="stretch" listStyleType="none">
      {!first && (
        <Box w="12px" position="relative" aria-hidden>
          <Box position="absolute" left="0" top="0" bottom="0" borderLeftWidth="1px" borderColor="line" />
          <Box
            position="absolute"
            left="-5px"
            top="50%"
            w="9px"
            h="9px"
            bg="card"
            borderTopWidth="1px"
            borderRightWidth="1px"
            borderColor="line"
            transform="translateY(-50%) rotate(45deg)"
          />
        </Box>
      )}
      <Box py="1.5" pl={first ? '3.5' : '2'} pr="3.5">
        <Text fontSize="2xs" color="inkSoft" lineHeight="1.3">
          {name}
        </Text>
        <Text lineHeight="1.5" whiteSpace="nowrap">
          {children}
        </Text>
      </Box>
    </HStack>
  );
}

export function StripWay({ to, colour = 'ink', children }: { to: string; colour?: string; children: ReactNode }) {
  return (
    <Box asChild fontWeight="bold" color={colour} textDecoration="none" _hover={{ textDecoration: 'underline' }}>
      <Link to={to}>{children}</Link>
    </Box>
  );
}

/** Joins nodes by commas. */
const listed = (nodes: readonly ReactNode[]) =>
  nodes.map((node, at) => (
    <span key={at}>
      {at > 0 && ', '}
      {node}
    </span>
  ));

const sourceWords = (ranges: number, others: number): string => (others > 0 ? 'sources' : ranges === 1 ? 'source range' : 'source ranges');

export function Strip({ children }: { children: ReactNode }) {
  return (
    <Flex
      asChild
      role="list"
      aria-label="Lineage"
      display="inline-flex"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      rounded="l3"
      overflow="hidden"
      maxW="100%"
      overflowX="auto"
    >
      <ul>{children}</ul>
    </Flex>
  );
}

export function LineageStrip({ lineage }: { lineage: Lineage }) {
  const { ranges, others, catalogs, fields, carries } = lineage;
  const held = fields.reduce((sum, field) => sum + field.held, 0);
  const outside = fields.filter((field) => field.outside > 0);
  const sheets = new Set(fields.map(({ sheetId }) => sheetId)).size;
  const following = carries.reduce((sum, { total, done }) => sum + Math.max(0, total - done), 0);
  return (
    <Strip>
      <StripStage name={sourceWords(ranges.length, others.length)} first>
        {ranges.length + others.length === 0 && 'no parts yet'}
        {listed([
          ...others.map(({ words, to }) =>
            to ? (
              <StripWay key={words} to={to} colour="growth.fg">
                {words}
              </StripWay>
            ) : (
              <span key={words}>{words}</span>
            ),
          ),
          ...ranges.slice(0, 3).map((range) => (
            <span key={range.id}>
              <StripWay to={`/sources/${range.sheetId}?range=${range.id}`} colour="growth.fg">
                {range.name}
              </StripWay>{' '}
              in {range.sheetTitle}, {range.ends}
            </span>
          )),
        ])}
        {ranges.length > 3 && ` and ${ranges.length - 3} more`}
      </StripStage>
      <StripStage name={catalogs.length === 1 ? 'catalog' : 'catalogs'}>
        {catalogs.length === 0
          ? 'feeds no catalog yet'
          : listed(
              catalogs.map((catalog) => (
                <span key={catalog.id}>
                  <StripWay to={`/catalogs/${catalog.id}`}>{catalog.title}</StripWay>, {number.format(catalog.offered)} offered
                  {catalog.retired > 0 && `, ${number.format(catalog.retired)} retired`}
                </span>
              )),
            )}
      </StripStage>
      {catalogs.length > 0 && (
        <StripStage name="fields">
          {fields.length === 0 ? (
            'bound to no field yet'
          ) : (
            <>
              {listed(
                fields.slice(0, 2).map((field) => (
                  <StripWay key={field.id} to={`/sheets/${field.sheetId}?field=${field.key}`}>
                    {field.heading}
                  </StripWay>
                )),
              )}
              {fields.length > 2 && ` and ${fields.length - 2} more`} in {plural(sheets, 'sheet')}
            </>
          )}
        </StripStage>
      )}
      {fields.length > 0 && (
        <StripStage name="entries">
          <b>{number.format(held)}</b>
          {outside.length === 0 && ', none outside'}
          {outside.map((field) => (
            <span key={field.id}>
              ,{' '}
              <StripWay to={`/sheets/${field.sheetId}?outside=${field.key}`} colour="amber.fg">
                {number.format(field.outside)} outside{outside.length > 1 && ` in ${field.sheetTitle}`}
              </StripWay>
            </span>
          ))}
          {following > 0 && `, ${plural(following, 'row')} still following`}
        </StripStage>
      )}
    </Strip>
  );
}
