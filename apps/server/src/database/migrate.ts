// Migrations run forward only, in code, under Kysely's own advisory lock.
import { Migrator, type Kysely, type Migration } from 'kysely';
import * as firstThread from './migrations/0001-first-thread.js';
import * as writeCell from './migrations/0002-write-cell.js';
import * as sourcesInFull from './migrations/0003-sources-in-full.js';
import * as rulesInFull from './migrations/0004-rules-in-full.js';
import * as sheetInFull from './migrations/0005-the-sheet-in-full.js';
import * as takingListsBack from './migrations/0006-taking-lists-back.js';
import * as forms from './migrations/0007-forms.js';
import * as figures from './migrations/0008-figures.js';
import * as houseAndPeople from './migrations/0009-house-and-people.js';
import * as alikeValues from './migrations/0010-alike-values.js';
import * as entriesTurned from './migrations/0011-entries-turned.js';
import * as whoCorrected from './migrations/0012-who-corrected.js';
import * as knownBrowsers from './migrations/0013-known-browsers.js';
import * as toldApart from './migrations/0014-told-apart.js';
import * as ledgerSeals from './migrations/0015-ledger-seals.js';
import * as secondFactor from './migrations/0016-second-factor.js';
import * as sheetsForSome from './migrations/0017-sheets-for-some.js';
import * as closedEntries from './migrations/0018-closed-entries.js';
import * as everyState from './migrations/0019-every-state.js';
import * as actsSayWhatTheyDo from './migrations/0020-acts-say-what-they-do.js';
import * as downloads from './migrations/0021-downloads.js';
import * as accessTokens from './migrations/0022-access-tokens.js';
import * as webhooks from './migrations/0023-webhooks.js';
import * as sheetsThatStay from './migrations/0024-sheets-that-stay.js';
import * as filesBack from './migrations/0025-files-back.js';
import * as archivesLookedAt from './migrations/0026-archives-looked-at.js';
import * as adoptions from './migrations/0027-adoptions.js';
import * as alikePlain from './migrations/0028-alike-plain.js';
import * as intakes from './migrations/0029-intakes.js';
import * as partsOfFiles from './migrations/0030-parts-of-files.js';
import * as keptCombinations from './migrations/0031-kept-combinations.js';
import * as toldAfterCommit from './migrations/0032-told-after-commit.js';
import * as keptFindings from './migrations/0033-kept-findings.js';
import * as oneRowAnAct from './migrations/0034-one-row-an-act.js';
import type { Tables } from './tables.js';

const migrations: Record<string, Migration> = {
  '0001-first-thread': firstThread,
  '0002-write-cell': writeCell,
  '0003-sources-in-full': sourcesInFull,
  '0004-rules-in-full': rulesInFull,
  '0005-the-sheet-in-full': sheetInFull,
  '0006-taking-lists-back': takingListsBack,
  '0007-forms': forms,
  '0008-figures': figures,
  '0009-house-and-people': houseAndPeople,
  '0010-alike-values': alikeValues,
  '0011-entries-turned': entriesTurned,
  '0012-who-corrected': whoCorrected,
  '0013-known-browsers': knownBrowsers,
  '0014-told-apart': toldApart,
  '0015-ledger-seals': ledgerSeals,
  '0016-second-factor': secondFactor,
  '0017-sheets-for-some': sheetsForSome,
  '0018-closed-entries': closedEntries,
  '0019-every-state': everyState,
  '0020-acts-say-what-they-do': actsSayWhatTheyDo,
  '0021-downloads': downloads,
  '0022-access-tokens': accessTokens,
  '0023-webhooks': webhooks,
  '0024-sheets-that-stay': sheetsThatStay,
  '0025-files-back': filesBack,
  '0026-archives-looked-at': archivesLookedAt,
  '0027-adoptions': adoptions,
  '0028-alike-plain': alikePlain,
  '0029-intakes': intakes,
  '0030-parts-of-files': partsOfFiles,
  '0031-kept-combinations': keptCombinations,
  '0032-told-after-commit': toldAfterCommit,
  '0033-kept-findings': keptFindings,
  '0034-one-row-an-act': oneRowAnAct,
};

/** Brings the database to the newest form, or to an older one by its name; throws what went wrong. */
export async function migrate(db: Kysely<Tables>, to?: string): Promise<void> {
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(migrations) } });
  const { error } = to === undefined ? await migrator.migrateToLatest() : await migrator.migrateTo(to);
  if (error) throw error;
}
