// The modules of the server, one a concept, wired together.
import { Module, type DynamicModule } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ServeStaticModule } from '@nestjs/serve-static';
import { ArrangementsController } from './arrangements/arrangements.controller.js';
import { ArrangementsService } from './arrangements/arrangements.service.js';
import { ArrangementsStore } from './arrangements/arrangements.store.js';
import { HealthController } from './api/health.controller.js';
import { BindingsController } from './bindings/bindings.controller.js';
import { BindingsService } from './bindings/bindings.service.js';
import { ManyBindingsController } from './bindings/manyBindings.controller.js';
import { ManyBindingsService } from './bindings/manyBindings.service.js';
import { RuleHistory } from './bindings/ruleHistory.service.js';
import { RuleHistoryStore } from './bindings/ruleHistory.store.js';
import { WhyService } from './bindings/why.service.js';
import { BuildService } from './build/build.service.js';
import { BuildStore } from './build/build.store.js';
import { CarriesService } from './carries/carries.service.js';
import { CarriesStore } from './carries/carries.store.js';
import { CatalogsController } from './catalogs/catalogs.controller.js';
import { CatalogsService } from './catalogs/catalogs.service.js';
import { CatalogsStore } from './catalogs/catalogs.store.js';
import { CompiledCatalogs } from './catalogs/compiled.service.js';
import { HistoryService } from './catalogs/history.service.js';
import { HistoryStore } from './catalogs/history.store.js';
import { ItemsService } from './catalogs/items.service.js';
import { LineageService } from './catalogs/lineage.service.js';
import { Counts } from './counts/counts.js';
import { Outside } from './counts/outside.js';
import { Database } from './database/database.js';
import { BlockJudging } from './entries/blockJudging.js';
import { CellWriter } from './entries/cellWriter.js';
import { EntriesController } from './entries/entries.controller.js';
import { EntriesService } from './entries/entries.service.js';
import { Finding } from './entries/finding.service.js';
import { FindingStore } from './entries/finding.store.js';
import { HeldController } from './entries/held.controller.js';
import { EntriesStore } from './entries/entries.store.js';
import { EntryActs } from './entries/entryActs.service.js';
import { EntryActsController } from './entries/entryActs.controller.js';
import { EntryActsStore } from './entries/entryActs.store.js';
import { EntryPages } from './entries/entryPages.service.js';
import { EntryWriting } from './entries/entryWriting.js';
import { OutsideHoldings } from './entries/outsideHoldings.js';
import { TakingBack } from './entries/takingBack.service.js';
import { NewValues } from './entries/newValues.js';
import { PlacesStore } from './entries/places.store.js';
import { HouseController } from './houses/house.controller.js';
import { HousesController } from './houses/houses.controller.js';
import { HousesService } from './houses/houses.service.js';
import { Jobs } from './jobs/jobs.js';
import { Workers } from './jobs/workers.js';
import { Ledger } from './ledger/ledger.js';
import { Changes } from './live/changes.js';
import { LinkedController } from './linked/linked.controller.js';
import { LinkedService } from './linked/linked.service.js';
import { LinkedStore } from './linked/linked.store.js';
import { Reachable, type ReachableConfig } from './linked/reachable.js';
import { Listener } from './live/listener.js';
import { LiveController } from './live/live.controller.js';
import { RoleGuard } from './people/guard.js';
import { PeopleController } from './people/people.controller.js';
import { PeopleService } from './people/people.service.js';
import { PeopleStore } from './people/people.store.js';
import { SessionController } from './people/session.controller.js';
import { SessionsService } from './people/sessions.service.js';
import { RangesController } from './ranges/ranges.controller.js';
import { RangesService } from './ranges/ranges.service.js';
import { RecordsController } from './records/records.controller.js';
import { RecordsService } from './records/records.service.js';
import { RecordsStore } from './records/records.store.js';
import { FiguresController } from './figures/figures.controller.js';
import { FiguresService } from './figures/figures.service.js';
import { FiguresStore } from './figures/figures.store.js';
import { FillingService } from './forms/filling.service.js';
import { FormMarks } from './forms/formMarks.js';
import { FormsController } from './forms/forms.controller.js';
import { FormsService } from './forms/forms.service.js';
import { FormsStore } from './forms/forms.store.js';
import { OpenFilling } from './forms/openFilling.service.js';
import { OpenFormsController } from './forms/openForms.controller.js';
import { RequestsController } from './requests/requests.controller.js';
import { RequestsService } from './requests/requests.service.js';
import { RequestsStore } from './requests/requests.store.js';
import { SheetsController } from './sheets/sheets.controller.js';
import { SheetsService } from './sheets/sheets.service.js';
import { SheetsStore } from './sheets/sheets.store.js';
import { ActsStore } from './sources/acts.store.js';
import { Applying } from './sources/applying.js';
import { Planning } from './sources/planning.js';
import { SourcesController } from './sources/sources.controller.js';
import { SourcesService } from './sources/sources.service.js';
import { SourcesStore } from './sources/sources.store.js';
import { Worlds } from './sources/worlds.js';
import { ColumnsController } from './upkeep/columns.controller.js';
import { FromRowsController } from './upkeep/fromRows.controller.js';
import { FromRowsService } from './upkeep/fromRows.service.js';
import { FieldKinds } from './sheets/fieldKinds.service.js';
import { GrowingLists } from './ranges/growingLists.service.js';
import { GatherService } from './upkeep/gather.service.js';
import { GatherStore } from './upkeep/gather.store.js';
import { UpkeepController } from './upkeep/upkeep.controller.js';
import { UpkeepService } from './upkeep/upkeep.service.js';

const controllers = [
  HealthController,
  HousesController,
  HouseController,
  SessionController,
  PeopleController,
  SheetsController,
  ArrangementsController,
  EntriesController,
  EntryActsController,
  HeldController,
  SourcesController,
  RangesController,
  CatalogsController,
  BindingsController,
  ManyBindingsController,
  ColumnsController,
  FromRowsController,
  UpkeepController,
  LinkedController,
  RecordsController,
  RequestsController,
  FormsController,
  OpenFormsController,
  FiguresController,
  LiveController,
];

const stores = [ActsStore, ArrangementsStore, BuildStore, CarriesStore, CatalogsStore, EntriesStore, EntryActsStore, FiguresStore, FindingStore, FormsStore, GatherStore, HistoryStore, LinkedStore, PeopleStore, PlacesStore, RecordsStore, RequestsStore, RuleHistoryStore, SheetsStore, SourcesStore];

const services = [
  Applying,
  ArrangementsService,
  BindingsService,
  BlockJudging,
  BuildService,
  CarriesService,
  CatalogsService,
  CellWriter,
  Changes,
  CompiledCatalogs,
  Counts,
  EntriesService,
  EntryActs,
  EntryPages,
  Finding,
  FiguresService,
  FillingService,
  FormMarks,
  FormsService,
  FromRowsService,
  EntryWriting,
  GatherService,
  GrowingLists,
  FieldKinds,
  HistoryService,
  HousesService,
  ItemsService,
  Jobs,
  Ledger,
  LineageService,
  LinkedService,
  Listener,
  ManyBindingsService,
  NewValues,
  OpenFilling,
  Outside,
  OutsideHoldings,
  PeopleService,
  Planning,
  RangesService,
  RecordsService,
  RequestsService,
  RuleHistory,
  SessionsService,
  SheetsService,
  SourcesService,
  TakingBack,
  UpkeepService,
  WhyService,
  Workers,
  Worlds,
];

@Module({})
export class AppModule {
  /** `reachable`: what linked sources may reach. `webFolder`: the built web application, served beside the API; without it the server is the API alone. */
  static with(database: Database, reachable: ReachableConfig, webFolder?: string): DynamicModule {
    return {
      module: AppModule,
      imports: webFolder ? [ServeStaticModule.forRoot({ rootPath: webFolder, exclude: ['/api/{*rest}'], serveStaticOptions: { index: 'index.html', maxAge: '1h', setHeaders: neverStorePages } })] : [],
      controllers,
      providers: [{ provide: Database, useValue: database }, { provide: Reachable, useValue: new Reachable(reachable) }, ...stores, ...services, { provide: APP_GUARD, useClass: RoleGuard }],
    };
  }
}

/** The page itself is asked for each time, so that a new build is seen at once; its hashed parts are kept. */
function neverStorePages(response: { setHeader(name: string, value: string): void }, path: string): void {
  if (path.endsWith('.html')) response.setHeader('Cache-Control', 'no-cache');
}
