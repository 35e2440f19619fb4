// A sheet of more rows than browsers draw: by the scrollbar, the wheel and the keys each of its entries is reached, and typed in.
import { Database, PlacesStore, posGap } from '@dellum/server';
import type { BuildView } from '@dellum/contract';
import { sql } from 'kysely';
import { expect, test, toSheet } from './house.js';

const many = 400_000;

test('of four hundred thousand entries the last is reached by the scrollbar, the wheel and the keys, and typed in', async ({ house }) => {
  const page = await house.open('mara', '/');
  const build = (await (await page.request.get('/api/v1/build')).json()) as BuildView;
  const register = build.sheets.find(({ title }) => title === 'Berth visits')!.registers[0]!;
  const text = register.fields.find(({ kind, rule }) => kind === 'text' && rule === null)!;
  const database = new Database(process.env['DELLUM_DATABASE']!, 2);
  const first = 100_000n * posGap;
  await sql`insert into entries (house_id, register_id, id, pos, cells)
    select ${house.id}, ${register.id}, gen_random_uuid(), ${first.toString()}::bigint + n * ${posGap.toString()}::bigint,
      jsonb_build_object(${text.key}::text, 'Row ' || n) from generate_series(1::bigint, ${many}) as n`.execute(database.kysely);
  await database.transaction((trx) =>
    new PlacesStore().countIn(
      trx,
      { houseId: house.id, registerId: register.id },
      Array.from({ length: many }, (_, at) => first + posGap * BigInt(at + 1)),
      1,
    ),
  );
  await database.kysely.destroy();

  const grid = await toSheet(page, 'Berth visits');
  const cell = (n: number) => grid.getByRole('gridcell', { name: `Row ${n}`, exact: true });
  expect(await grid.evaluate((box) => box.scrollHeight)).toBeLessThan(8_001_000);
  await grid.evaluate((box) => (box.scrollTop = box.scrollHeight));
  await expect(cell(many)).toBeInViewport();
  await grid.hover();
  await page.mouse.wheel(0, -300);
  await expect(cell(many - 12)).toBeInViewport();
  await grid.evaluate((box) => (box.scrollTop = box.scrollHeight / 2));
  // What is in the middle is where it was clicked, and goes by keys from there.
  const middle = grid.getByRole('gridcell', { name: /^Row (?:199|200)\d{3}$/u }).nth(20);
  await expect(middle).toBeInViewport();
  const n = Number((await middle.textContent())!.replace('Row ', ''));
  await middle.click();
  for (let at = 0; at < 40; at++) await page.keyboard.press('ArrowDown');
  await expect(cell(n + 40)).toBeFocused();
  await expect(cell(n + 40)).toBeInViewport({ ratio: 0.9 });
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Control+End');
  await expect(cell(many)).toBeInViewport({ ratio: 0.9 });
  await cell(many).click();
  await page.keyboard.type('The last one');
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('gridcell', { name: 'The last one' })).toBeInViewport();
});
