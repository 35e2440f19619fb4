// The tables as Kysely sees them. Every key begins with the house.
import type {
  AdoptedTable,
  Arrangement,
  CatalogDefinition,
  Closing,
  Cells,
  BlockAct,
  ActOutcome,
  FieldKind,
  FigureDefinition,
  FormLayout,
  Item,
  ItemColour,
  LinkedRow,
  Locale,
  Mends,
  Proposal,
  RangeEnd,
  RangeShape,
  RangeStart,
  Rule,
  Step,
} from '@dellum/core';
import type {
  AdoptionState,
  Audience,
  Change,
  DownloadDto,
  DownloadState,
  EntryActState,
  FileColumn,
  FileHeading,
  FollowingCell,
  IntakeWay,
  LaidAdoption,
  LinkedSettings,
  RememberedColumn,
  RequestState,
  ReturnedCell,
  ReturnedRowKind,
  ReturnedState,
  Role,
  SaidHeading,
  SentColumn,
  SlipQuestion,
  TurnedEntries,
  WebhookMessageKind,
} from '@dellum/contract';
import type { ColumnType, Generated } from 'kysely';

type Json<T> = ColumnType<T, string, string>;
type WithDefault<T> = ColumnType<T, string | undefined, string>;
type Moment = ColumnType<Date, Date | undefined, Date>;
/** bigint columns are read as numbers; all of them stay far below 2^53 except positions. */
type Big = ColumnType<number, number, number>;

export interface InstanceTable {
  id: string;
}
export interface HousesTable {
  id: string;
  key: string;
  name: string;
  locale: Json<Locale>;
  demo: boolean;
  /** Grows with every change of the build or of a catalog; caches are checked against it. */
  build: Generated<number>;
  /** The roles that need a second factor. */
  factor_roles: Generated<Role[]>;
}
export interface HouseCountersTable {
  house_id: string;
  seq: Big;
}
export interface PeopleTable {
  house_id: string;
  id: string;
  name: string;
  sign_in: string;
  sign_in_key: string;
  role: Role;
  password_hash: string;
  /** Since when the person is out of the house; null for those who may enter it. */
  out_since: ColumnType<Date | null, Date | null | undefined, Date | null>;
  /** The second factor: the secret that holds (base 32), one that is being set up, and the step of the last code that was used. */
  factor_secret: ColumnType<string | null, string | null | undefined, string | null>;
  factor_pending: ColumnType<string | null, string | null | undefined, string | null>;
  factor_since: ColumnType<Date | null, Date | null | undefined, Date | null>;
  factor_step: ColumnType<number | null, number | null | undefined, number | null>;
}
export interface RecoveryCodesTable {
  house_id: string;
  person_id: string;
  code_hash: Buffer;
}
export interface SessionsTable {
  house_id: string;
  token_hash: Buffer;
  person_id: string;
  last_seen_at: Moment;
  expires_at: ColumnType<Date, Date, Date>;
  id: Generated<string>;
  begun_at: Moment;
  /** The browser, as it says what it is, and its address. */
  begun_from: Generated<string>;
}
export interface KnownBrowsersTable {
  house_id: string;
  person_id: string;
  token_hash: Buffer;
  at: Moment;
}
/** Values that look alike and are two things. */
export interface ToldApartTable {
  house_id: string;
  id: string;
  one: string;
  other: string;
}
export interface SignInTriesTable {
  house_id: string;
  id: Generated<number>;
  sign_in_key: string;
  address: string;
  at: Moment;
}
export interface SheetsTable {
  house_id: string;
  id: string;
  kind: 'entry' | 'source';
  title: string;
  note: string;
  shown: Generated<boolean>;
  /** There for groups of people alone, beside the administrators. */
  limited: Generated<boolean>;
  /** Whoever looks at it downloads it; otherwise administrators alone. */
  downloads: Generated<boolean>;
  ord: number;
}
export interface SheetGroupsTable {
  house_id: string;
  sheet_id: string;
  group_id: string;
  /** Its people enter data; otherwise they look only. */
  enters: boolean;
}
export interface PeopleGroupsTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
}
export interface GroupMembersTable {
  house_id: string;
  group_id: string;
  person_id: string;
}
export interface RegistersTable {
  house_id: string;
  id: string;
  sheet_id: string;
  title: string;
  ord: number;
  /** Raised whenever entries come, go or move. */
  shape: Generated<number>;
  /** When its entries are closed to all but administrators; null for never. */
  closing: ColumnType<Closing | null, string | null | undefined, string | null>;
}
export interface FieldsTable {
  house_id: string;
  id: string;
  register_id: string;
  key: string;
  heading: string;
  kind: FieldKind;
  width: number;
  ord: number;
  rule: Json<Rule> | null;
  catalog_id: string | null;
  /** The heading under which it stands in a record; '' for none. */
  grouped: Generated<string>;
}
export interface EntriesTable {
  house_id: string;
  register_id: string;
  id: string;
  /** Place in the register, with gaps of 2^32; a string, since it may pass 2^53. */
  pos: ColumnType<string, string | bigint, string | bigint>;
  version: Generated<number>;
  cells: Json<Record<string, string>>;
}
export interface ChunksTable {
  house_id: string;
  register_id: string;
  from_pos: ColumnType<string, string | bigint, string | bigint>;
  entries: number;
}
export interface ValueCountsTable {
  house_id: string;
  field_id: string;
  value: string;
  entries: Big;
}
export interface ValueDeltasTable {
  house_id: string;
  field_id: string;
  value: string;
  entries: Big;
}
/** Deltas of many values of one field: `held[n]` is in `numbers[n]` more entries. */
export interface ValueBlocksTable {
  house_id: string;
  field_id: string;
  held: string[];
  numbers: number[];
}
export interface KeptCombinationsTable {
  house_id: string;
  id: Generated<string>;
  register_id: string;
  /** The fields that are combined, in the order of their keys. */
  keys: readonly string[];
  /** `many`: they are not kept, since there are too many. */
  state: 'counting' | 'counted' | 'many';
  /** The day on which somebody asked for them last. */
  asked_on: Generated<string>;
}
export interface CombinationCountsTable {
  house_id: string;
  kept_id: string;
  digest: string;
  texts: readonly (string | null)[];
  entries: Big;
}
export interface CombinationDeltasTable {
  house_id: string;
  id: Generated<number>;
  kept_id: string;
  texts: readonly (string | null)[];
  entries: Big;
}
export interface KeptFindingsTable {
  house_id: string;
  what: string;
  /** The version of the house in which it was found. */
  version: number;
  found: Json<unknown>;
}
export interface RangesTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
  shape: RangeShape;
  inherits: boolean;
}
export interface RangeStretchesTable {
  house_id: string;
  range_id: string;
  ord: number;
  register_id: string;
  fields: Json<string[]>;
  range_start: Json<RangeStart>;
  range_end: Json<RangeEnd>;
}
export interface CatalogsTable {
  house_id: string;
  id: string;
  key: string;
  title: string;
  note: string;
  version: Generated<number>;
  definition: Json<CatalogDefinition>;
}
export interface KeptItemsTable {
  house_id: string;
  catalog_id: string;
  /** Parents and value, as `itemKey` joins them. */
  key: string;
  value: string;
  path: Json<string[]>;
  retired: boolean;
  label: string | null;
  note: string | null;
  colour: ItemColour | null;
  valid_from: string | null;
  valid_until: string | null;
}
export interface OtherNamesTable {
  house_id: string;
  catalog_id: string;
  name: string;
  value: string;
}
export interface SlipsTable {
  house_id: string;
  id: string;
  person_id: string;
  proposal: Json<Proposal>;
  questions: Json<SlipQuestion[]>;
  outside: Json<TurnedEntries[]>;
  inside: number;
  /** Entries of the source that the proposal touches; another act on them has to wait. */
  entries: Json<string[]>;
  at: Moment;
}
export interface CarriesTable {
  house_id: string;
  id: string;
  field_id: string;
  from_value: string;
  to_value: string;
  /** The last entry that was looked at; rows are rewritten in the order of their ids. */
  reached: string | null;
  done: Big;
  total: Big;
  finished_at: Date | null;
  /** The act that it belongs to, which can be taken back. */
  act_id: Big | null;
  /** Who decided it. */
  person_id: string | null;
}
export interface LedgerTable {
  house_id: string;
  id: Generated<number>;
  at: Moment;
  person_id: string | null;
  act: string;
  register_id: string | null;
  entry_id: string | null;
  field_key: string | null;
  entry_version: number | null;
  from_value: string | null;
  to_value: string | null;
  detail: Json<LedgerDetail> | null;
  /** The act on a block that this belongs to. */
  act_id: number | null;
  /** Of what was written into several fields of an entry: what each held and what it holds, null for blank. Read it by `ledger_lines`. */
  fields: Json<Readonly<Record<string, readonly [string | null, string | null]>>> | null;
}
/** The ledger with a line for each cell that was written. */
export type LedgerLines = Omit<LedgerTable, 'fields'>;
/** A digest over the rows of the ledger up to one, and over the seal before. */
export interface LedgerSealsTable {
  house_id: string;
  ord: number;
  upto: number;
  rows: number;
  digest: string;
  at: Moment;
}
export type LedgerDetail = Readonly<Record<string, unknown>>;
export interface ActsTable {
  house_id: string;
  id: Generated<number>;
  person_id: string | null;
  at: Moment;
  registers: Json<string[]>;
  proposal: Json<Proposal>;
  back: Json<Step[]>;
  state: ColumnType<'done' | 'undone', 'done' | 'undone' | undefined, 'done' | 'undone'>;
}
/** An item before and after a change; null where it was not there. One that was corrected has another key after it. */
export interface ItemChange {
  readonly before: Item | null;
  readonly after: Item | null;
  /** The value that takes its place from now on. */
  readonly replacedBy?: string;
}
export interface CatalogChangesTable {
  house_id: string;
  id: Generated<number>;
  catalog_id: string;
  at: Moment;
  person_id: string | null;
  act_id: number | null;
  version: Big;
  items: Json<ItemChange[]>;
  order_before: Json<string[]> | null;
  definition_before: Json<CatalogDefinition> | null;
}
export interface LinkedSourcesTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
  settings: Json<LinkedSettings>;
  /** Minutes between refreshes; 0 for on demand only. */
  every: number;
  made_by: string | null;
  rows: ColumnType<LinkedRow[], string | undefined, string>;
  /** What the source said of its state when it was last read (an ETag), so that it need not be read again. */
  mark: string | null;
  last_good_at: Date | null;
  last_tried_at: Date | null;
  failure: string | null;
}
export interface ChangesTable {
  house_id: string;
  seq: Big;
  audience: Audience;
  body: Json<Change>;
  at: Moment;
}

export interface ArrangementsTable {
  house_id: string;
  person_id: string;
  register_id: string;
  version: number;
  body: Json<Arrangement>;
  /** The shape of the register at which the entries were arranged; null before they are. */
  shape: Big | null;
  entries: number | null;
}
export interface ArrangedEntriesTable {
  house_id: string;
  person_id: string;
  register_id: string;
  chunk: number;
  entries: string[];
}
export interface EntryActsTable {
  house_id: string;
  id: Generated<number>;
  person_id: string;
  register_id: string;
  at: Moment;
  what: Json<BlockAct>;
  /** The fields of the block, by key. */
  fields: Json<string[]>;
  /** What it works on, in order. */
  entries: string[];
  /** So many of them are done. */
  done: Generated<number>;
  state: ColumnType<EntryActState, EntryActState | undefined, EntryActState>;
  outcome: Json<ActOutcome>;
  /** As `what` says. */
  does: ColumnType<BlockAct['does'], never, never>;
  /** So many entries it works on. */
  total: ColumnType<number, never, never>;
}
export interface DownloadsTable {
  house_id: string;
  id: Generated<number>;
  person_id: string;
  register_id: string;
  at: Moment;
  name: string;
  wanted: Json<DownloadDto>;
  /** The fields that it holds, by key, in their order. */
  fields: Json<string[]>;
  /** The entries that it holds, in their order. */
  entries: string[];
  done: Generated<number>;
  state: ColumnType<DownloadState, DownloadState | undefined, DownloadState>;
  /** Where the writer stands; null before the first part. */
  written: ColumnType<unknown, string | undefined, string | null>;
  parts: Generated<number>;
  bytes: Generated<number>;
  /** Under which id it is known what went out, where it is to come back. */
  sent_id: ColumnType<string | null, string | null | undefined, string | null>;
}
export interface SentFilesTable {
  house_id: string;
  id: string;
  register_id: string;
  at: Moment;
  /** What its mark is signed with. */
  key: Buffer;
  /** What its columns show; null before they are written. */
  columns: Json<SentColumn[]> | null;
}
export interface SentEntriesTable {
  house_id: string;
  sent_id: string;
  entry_id: string;
  cells: Json<Cells>;
  /** Of all that its row held. */
  mark: Buffer;
}
export interface ReturnedFilesTable {
  house_id: string;
  id: Generated<number>;
  person_id: string;
  name: string;
  at: Moment;
  /** SHA-256 */
  digest: Buffer;
  bytes: Big;
  register_id: string | null;
  sent_id: ColumnType<string | null, string | null | undefined, string | null>;
  state: ColumnType<ReturnedState, ReturnedState | undefined, ReturnedState>;
  /** How often it was begun to be read: who reads it for the last time goes on. */
  run: Generated<number>;
  /** Rows that are read. */
  done: Generated<number>;
  /** Why it cannot be read. */
  why: ColumnType<string | null, string | null | undefined, string | null>;
  /** What is to be said of it, in sentences. */
  said: ColumnType<string[], string | undefined, string>;
  headings: ColumnType<FileHeading[], string | undefined, string>;
  /** Which of its columns are which fields, as somebody has said; null where nobody has. */
  columns: ColumnType<FileColumn[] | null, string | null | undefined, string | null>;
  act_id: ColumnType<number | null, number | null | undefined, number | null>;
  /** The intake that takes it; what fits is stored at once. */
  intake_id: ColumnType<string | null, string | null | undefined, string | null>;
  way: ColumnType<IntakeWay, IntakeWay | undefined, never>;
  /** The program that sent it. */
  program: ColumnType<string | null, string | null | undefined, string | null>;
  /** The file of which this was stored while the rest waited. */
  part_of: ColumnType<number | null, number | null | undefined, never>;
}
export interface IntakesTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
  register_id: string;
  /** Under the root of the house; null where no folder is looked at. */
  folder: string | null;
  pattern: string;
  holds_all: boolean;
  /** In whose name it stores. */
  person_id: string;
  made_at: Moment;
  off_since: ColumnType<Date | null, undefined, Date | null>;
  /** Why no file was taken when the folder was looked at last. */
  failure: ColumnType<string | null, undefined, string | null>;
}
/** The files of a folder that were taken, as they were then. */
export interface IntakeTakenTable {
  house_id: string;
  intake_id: string;
  name: string;
  size: Big;
  modified: ColumnType<Date, Date, Date>;
}
export interface ReturnedPartsTable {
  house_id: string;
  file_id: number;
  part: number;
  bytes: Buffer;
}
export interface ReturnedRowsTable {
  house_id: string;
  file_id: number;
  ord: number;
  /** Its number in the file; null for an entry whose row did not come back. */
  row: number | null;
  what: ReturnedRowKind;
  entry_id: string;
  cells: Json<ReturnedCell[]>;
  follows: Json<FollowingCell[]>;
  /** What the row begins with, to be known by. */
  about: string;
  /** Cells that were changed there and here. */
  asked: number;
  refused: number;
  deletes: Generated<boolean>;
  /** Of a new row, by what it holds. */
  mark: Buffer | null;
}
export interface ReturnedShapesTable {
  house_id: string;
  register_id: string;
  shape: Buffer;
  columns: Json<RememberedColumn[]>;
}
export interface LookedArchivesTable {
  house_id: string;
  id: string;
  person_id: string;
  at: Moment;
}
export interface LookedArchivePartsTable {
  house_id: string;
  archive_id: string;
  part: number;
  bytes: Buffer;
}
export interface AdoptionProgressTable {
  house_id: string;
  adoption_id: string;
  done: number;
  total: number | null;
}
export interface AdoptionsTable {
  house_id: string;
  id: string;
  person_id: string;
  at: Moment;
  state: AdoptionState;
  run: Generated<number>;
  why: ColumnType<string | null, string | undefined, string | null>;
  said: WithDefault<string[]>;
  found: ColumnType<AdoptedTable[] | null, string | null | undefined, string | null>;
  mends: Json<Mends>;
  headings: WithDefault<SaidHeading[]>;
  applied: ColumnType<LaidAdoption | null, string | null | undefined, string | null>;
}
export interface AdoptedFilesTable {
  house_id: string;
  adoption_id: string;
  ord: number;
  name: string;
  bytes: number;
  is_utf8: boolean | null;
}
export interface AdoptedPartsTable {
  house_id: string;
  adoption_id: string;
  ord: number;
  part: number;
  bytes: Buffer;
}
export interface AccessTokensTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
  token_hash: Buffer;
  writes: boolean;
  /** The catalogs that it reads. */
  catalogs: string[];
  /** The registers that it reads, and enters data in where it writes. */
  registers: string[];
  /** The last day on which it is good (ISO 8601). */
  until: string;
  made_by: string | null;
  made_at: Moment;
  ended_at: ColumnType<Date | null, undefined, Date>;
  last_used_at: ColumnType<Date | null, undefined, Date>;
  /** The minute in which it was used last, and how often in it. */
  minute: Moment;
  asked: Generated<number>;
}
export interface ProgramAnswersTable {
  house_id: string;
  token_id: string;
  /** The Idempotency-Key of the request. */
  key: string;
  /** The hash of what was asked. */
  asked: Buffer;
  /** Null while the request is under way. */
  answer: ColumnType<unknown, undefined, string>;
  at: Moment;
}
export interface DownloadPartsTable {
  house_id: string;
  download_id: number;
  part: number;
  bytes: Buffer;
}
export interface StewardsTable {
  house_id: string;
  catalog_id: string;
  person_id: string;
}
export interface RequestsTable {
  house_id: string;
  id: string;
  catalog_id: string;
  field_id: string;
  entry_id: string;
  /** The parents that the entry held. */
  path: Json<string[]>;
  value: string;
  /** Nobody for whoever fills a form by a link. */
  person_id: string | null;
  at: Moment;
  state: ColumnType<RequestState, RequestState | undefined, RequestState>;
  /** The value that the request became. */
  answer: string | null;
  word: string | null;
  answered_by: string | null;
  answered_at: Date | null;
}
export interface FormsTable {
  house_id: string;
  id: string;
  register_id: string;
  title: string;
  layout: Json<FormLayout>;
  /** Grows with every change of the layout. */
  edition: Generated<number>;
  published: number | null;
}
export interface FormVersionsTable {
  house_id: string;
  form_id: string;
  version: number;
  title: string;
  layout: Json<FormLayout>;
  at: Moment;
  person_id: string;
}
export interface FormLinksTable {
  house_id: string;
  id: string;
  form_id: string;
  token_hash: Buffer;
  expires_at: ColumnType<Date, Date, Date>;
  per_hour: number;
  person_id: string;
  at: Moment;
  closed_at: Date | null;
}
export interface FormFillingsTable {
  house_id: string;
  form_id: string;
  submission: string;
  version: number;
  entry_id: string;
  link_id: string | null;
  at: Moment;
}
export interface FiguresTable {
  house_id: string;
  id: string;
  register_id: string;
  title: string;
  definition: Json<FigureDefinition>;
  person_id: string;
}

export interface WebhooksTable {
  house_id: string;
  id: string;
  name: string;
  name_key: string;
  /** The name of an address that was given to the house where the server was started. */
  receiver: string;
  /** Signs messages, so that it is kept as it is. */
  secret: Buffer;
  catalogs: string[];
  registers: string[];
  /** The number of the newest change that a message tells of. */
  seq: Big;
  made_by: string | null;
  made_at: Moment;
  failing_since: ColumnType<Date | null, undefined, Date | null>;
  said: ColumnType<string | null, undefined, string | null>;
  off_at: ColumnType<Date | null, undefined, Date | null>;
  last_told_at: ColumnType<Date | null, undefined, Date>;
}
export interface WebhookMessagesTable {
  house_id: string;
  webhook_id: string;
  id: string;
  kind: Generated<WebhookMessageKind>;
  body: string;
  at: Moment;
  tries: Generated<number>;
  state: Generated<'waits' | 'taken' | 'not taken'>;
  next_at: Moment;
  said: ColumnType<string | null, undefined, string>;
}

export interface Tables {
  webhooks: WebhooksTable;
  webhook_messages: WebhookMessagesTable;
  figures: FiguresTable;
  forms: FormsTable;
  form_versions: FormVersionsTable;
  form_links: FormLinksTable;
  form_fillings: FormFillingsTable;
  arrangements: ArrangementsTable;
  arranged_entries: ArrangedEntriesTable;
  entry_acts: EntryActsTable;
  access_tokens: AccessTokensTable;
  downloads: DownloadsTable;
  program_answers: ProgramAnswersTable;
  download_parts: DownloadPartsTable;
  sent_files: SentFilesTable;
  sent_entries: SentEntriesTable;
  returned_files: ReturnedFilesTable;
  returned_parts: ReturnedPartsTable;
  returned_rows: ReturnedRowsTable;
  returned_shapes: ReturnedShapesTable;
  intakes: IntakesTable;
  intake_taken: IntakeTakenTable;
  looked_archives: LookedArchivesTable;
  looked_archive_parts: LookedArchivePartsTable;
  adoptions: AdoptionsTable;
  adoption_progress: AdoptionProgressTable;
  adopted_files: AdoptedFilesTable;
  adopted_parts: AdoptedPartsTable;
  stewards: StewardsTable;
  requests: RequestsTable;
  instance: InstanceTable;
  houses: HousesTable;
  house_counters: HouseCountersTable;
  people: PeopleTable;
  sessions: SessionsTable;
  known_browsers: KnownBrowsersTable;
  recovery_codes: RecoveryCodesTable;
  sign_in_tries: SignInTriesTable;
  told_apart: ToldApartTable;
  sheets: SheetsTable;
  sheet_groups: SheetGroupsTable;
  people_groups: PeopleGroupsTable;
  group_members: GroupMembersTable;
  registers: RegistersTable;
  fields: FieldsTable;
  entries: EntriesTable;
  chunks: ChunksTable;
  value_counts: ValueCountsTable;
  value_deltas: ValueDeltasTable;
  value_blocks: ValueBlocksTable;
  /** Counts and deltas together: sum them by value. */
  value_numbers: ValueDeltasTable;
  kept_combinations: KeptCombinationsTable;
  kept_findings: KeptFindingsTable;
  combination_counts: CombinationCountsTable;
  combination_deltas: CombinationDeltasTable;
  ranges: RangesTable;
  catalogs: CatalogsTable;
  range_stretches: RangeStretchesTable;
  acts: ActsTable;
  catalog_changes: CatalogChangesTable;
  linked_sources: LinkedSourcesTable;
  kept_items: KeptItemsTable;
  other_names: OtherNamesTable;
  slips: SlipsTable;
  carries: CarriesTable;
  ledger: LedgerTable;
  ledger_lines: LedgerLines;
  ledger_seals: LedgerSealsTable;
  changes: ChangesTable;
}
