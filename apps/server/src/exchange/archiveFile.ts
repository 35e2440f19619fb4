// A house archive at the command line: `out FILE` or `in FILE`, over the database of DATABASE_URL. See scripts/archive.mjs.
import { createWriteStream } from 'node:fs';
import { open, readFile, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { NestFactory } from '@nestjs/core';
import { AppModule } from '../app.module.js';
import { Database } from '../database/database.js';
import { Standby } from '../database/standby.js';
import { migrate } from '../database/migrate.js';
import { reachableFrom } from '../linked/reachable.js';
import { ProblemError } from '../problems/index.js';
import { ArchivesService } from './archives.service.js';
import { openHouseArchive } from './houseArchive.js';
import { HouseFromArchiveService } from './houseFromArchive.service.js';

const say = (words: string) => void process.stdout.write(`${words}\n`);
const fail = (words: string): never => {
  throw new ProblemError('not-valid', words);
};

const ofFile: Readonly<Record<string, string>> = {
  EEXIST: 'is there already. Choose another name.',
  ENOENT: 'is not there, or its folder is not.',
  EACCES: 'cannot be opened: you have no right to it.',
};
function wordsOf(error: unknown): string {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (Object.hasOwn(ofFile, code)) return `${file} ${ofFile[code]}`;
  return error instanceof Error ? error.message || error.name : String(error);
}

/** The house that is meant: the only one, or the one of the key. */
async function houseOf(database: Database, key: string | undefined, option: string): Promise<string> {
  const houses = await database.kysely.selectFrom('houses').select(['id', 'key']).orderBy('key').execute();
  const found = key === undefined && houses.length === 1 ? houses[0] : houses.find((house) => house.key === key);
  const known = houses.map((house) => house.key).join(', ') || 'none';
  return found?.id ?? fail(`Say which house it is with ${option} KEY. There are: ${known}.`);
}

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: {
    house: { type: 'string' },
    into: { type: 'string' },
    'without-entries': { type: 'boolean', default: false },
    'without-people': { type: 'boolean', default: false },
  },
});
const [act, file] = positionals as ['out' | 'in', string];

const database = new Database(process.env['DATABASE_URL']!, 4);
// It is put together and never begun: it listens nowhere and does no jobs.
const app = await NestFactory.create(AppModule.with(database, new Standby(database, undefined), reachableFrom({}), undefined), {
  logger: ['error'],
  abortOnError: false,
});
try {
  await migrate(database.kysely);
  const archives = app.get(ArchivesService);
  if (act === 'out') {
    const houseId = await houseOf(database, values.house, '--house');
    const wanted = { entries: values['without-entries'] ? 'no' : 'yes', people: values['without-people'] ? 'no' : 'yes' } as const;
    // A file that is there is not written over, and one that is not whole does not stay.
    await (await open(file, 'wx')).close();
    try {
      await pipeline(Readable.from(archives.out(houseId, wanted)), createWriteStream(`${file}.part`));
      await rename(`${file}.part`, file);
    } catch (error) {
      await Promise.all([rm(file, { force: true }), rm(`${file}.part`, { force: true })]);
      throw error;
    }
    say(`${file} holds the house${values['without-entries'] ? ' without its entries: a template' : ''}.`);
  } else {
    const archive = await openHouseArchive(await readFile(file));
    const house = app.get(HouseFromArchiveService);
    if (values.into === undefined) {
      const made = await house.make(archive);
      say(`“${archive.house.name}” is in, with ${made.counts.entries.toLocaleString('en-GB')} entries.`);
      say(`Sign in at /sign-in?house=${made.key} as “${made.signIn}” with the password ${made.password}, and change it then.`);
    } else {
      const { counts, collisions } = await house.into(await houseOf(database, values.into, '--into'), archive);
      for (const { name, way, instead } of collisions)
        say(`“${name}” ${way === 'beside' ? `came in as “${instead}”` : 'is used as it is here'}.`);
      say(`“${archive.house.name}” is in, with ${counts.entries.toLocaleString('en-GB')} entries.`);
    }
  }
} catch (error) {
  process.stderr.write(`${wordsOf(error)}\n`);
  process.exitCode = 1;
} finally {
  await app.close();
}
