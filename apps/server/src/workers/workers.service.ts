// Which service does which job. Carries and acts that a killed server left are taken up at start.
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { AdoptingService } from '../adopting/adopting.service.js';
import { AdoptionsStore } from '../adopting/adoptions.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CarriesStore } from '../carries/carries.store.js';
import { CatalogsService } from '../catalogs/catalogs.service.js';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import { CombinationsStore } from '../counts/combinations.store.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database } from '../database/database.js';
import { EntryActsService } from '../entering/entryActs.service.js';
import { EntryActsStore } from '../entering/entryActs.store.js';
import { SealsStore } from '../ledger/seals.store.js';
import { ComparingService } from '../exchange/comparing.service.js';
import { LookedArchivesStore } from '../exchange/lookedArchives.store.js';
import { ReturnedStore } from '../exchange/returned.store.js';
import { SentStore } from '../exchange/sent.store.js';
import { DownloadsService } from '../exchange/downloads.service.js';
import { DownloadsStore } from '../exchange/downloads.store.js';
import { FoldersService } from '../intakes/folders.service.js';
import { IntakesStore } from '../intakes/intakes.store.js';
import { LinkedService } from '../linked/linked.service.js';
import { LinkedStore } from '../linked/linked.store.js';
import { AccessTokensStore } from '../programs/accessTokens.store.js';
import { WebhooksService } from '../programs/webhooks.service.js';
import { WebhooksStore } from '../programs/webhooks.store.js';
import { SessionsService } from '../people/sessions.service.js';
import { TriesStore } from '../people/tries.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import { JobsService, slice, type JobData } from '../jobs/jobs.service.js';

@Injectable()
export class WorkersService implements OnApplicationBootstrap {
  constructor(
    private readonly database: Database,
    private readonly jobs: JobsService,
    private readonly carries: CarriesService,
    private readonly carriesStore: CarriesStore,
    private readonly entryActs: EntryActsService,
    private readonly entryActsStore: EntryActsStore,
    private readonly downloads: DownloadsService,
    private readonly downloadsStore: DownloadsStore,
    private readonly sent: SentStore,
    private readonly comparing: ComparingService,
    private readonly returned: ReturnedStore,
    private readonly looked: LookedArchivesStore,
    private readonly adopting: AdoptingService,
    private readonly adoptions: AdoptionsStore,
    private readonly folders: FoldersService,
    private readonly intakes: IntakesStore,
    private readonly counts: CountsStore,
    private readonly combinations: CombinationsStore,
    private readonly changes: ChangesStore,
    private readonly sessions: SessionsService,
    private readonly tries: TriesStore,
    private readonly accessTokens: AccessTokensStore,
    private readonly webhooks: WebhooksService,
    private readonly webhooksStore: WebhooksStore,
    private readonly seals: SealsStore,
    private readonly linked: LinkedService,
    private readonly linkedStore: LinkedStore,
    private readonly catalogs: CatalogsService,
    private readonly catalogsStore: CatalogsStore,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.jobs.start({
      carry: (data) => this.inSlices('carry', data, (mayGoOn) => this.carries.run(data.houseId, data.carryId, mayGoOn)),
      entryAct: (data) => this.inSlices('entryAct', data, (mayGoOn) => this.entryActs.run(data.houseId, data.actId, mayGoOn)),
      download: (data) => this.inSlices('download', data, (mayGoOn) => this.downloads.run(data.houseId, data.downloadId, mayGoOn)),
      compare: ({ houseId, fileId }) => this.comparing.run(houseId, fileId),
      adopt: ({ houseId, adoptionId }) => this.adopting.run(houseId, adoptionId),
      intake: ({ houseId, intakeId }) => this.folders.look(houseId, intakeId),
      combine: (wanted) => this.combinations.keep(wanted),
      fold: async () => {
        await this.counts.fold();
        await this.combinations.fold();
      },
      forget: () => this.forget(),
      refresh: ({ houseId, sourceId }) => this.linked.refreshQuietly(houseId, sourceId),
      due: () => this.sendDue(),
      tell: ({ houseId }) => this.webhooks.tell(houseId),
      recount: ({ houseId }) => this.catalogs.recountUse(houseId),
      recounts: () => this.sendRecounts(),
      seal: async () => {
        await this.seals.seal();
      },
    });
    await this.sendDue();
    await this.jobs.send(undefined, 'carry', await this.carriesStore.unfinished(this.database.kysely));
    await this.jobs.send(undefined, 'entryAct', await this.entryActsStore.unfinished(this.database.kysely));
    await this.jobs.send(undefined, 'download', await this.downloadsStore.unfinished(this.database.kysely));
    await this.jobs.send(undefined, 'compare', await this.returned.unfinished(this.database.kysely));
    await this.jobs.send(undefined, 'adopt', await this.adoptions.unfinished(this.database.kysely));
    await this.jobs.send(undefined, 'combine', await this.combinations.unfinished(this.database.kysely));
  }

  /**
   * Works on what may take long for one slice of time, or until the server stops; the rest goes on as a job of its own, wherever there is a
   * server.
   */
  private async inSlices<Name extends 'carry' | 'entryAct' | 'download'>(
    name: Name,
    data: JobData[Name],
    work: (mayGoOn: () => boolean) => Promise<boolean>,
  ): Promise<void> {
    const until = Date.now() + slice;
    const isDone = await work(() => !this.jobs.stopping && Date.now() < until);
    if (!isDone) await this.jobs.send(undefined, name, [data]);
  }

  /**
   * Forgets what is of no use any more: changes, sessions that are over, tries to sign in, downloads, files that came back and answers to
   * programs of more than a week ago, archives that were looked at an hour ago, messages, proposals and combinations of more than a month, what went out
   * half a year ago.
   */
  async forget(): Promise<void> {
    await this.changes.forgetOld(this.database.kysely);
    await this.sessions.forgetOld(this.database.kysely);
    await this.tries.forgetOld(this.database.kysely);
    await this.downloadsStore.removeOld(this.database.kysely);
    await this.sent.forgetOld(this.database.kysely);
    await this.returned.forgetOld(this.database.kysely);
    await this.looked.forgetOld(this.database.kysely);
    await this.adoptions.forgetOld(this.database.kysely);
    await this.accessTokens.forgetOld(this.database.kysely);
    await this.webhooksStore.forgetOld(this.database.kysely);
    await this.combinations.forgetOld(this.database.kysely);
  }

  /** Sends a recount for every house that has a catalog ordered by use. */
  async sendRecounts(): Promise<void> {
    await this.jobs.send(undefined, 'recount', await this.catalogsStore.orderedByUse(this.database.kysely));
  }

  /**
   * Sends a refresh for every linked source whose time has come, looks at the folders of intakes, and tells programs what they were not
   * told.
   */
  async sendDue(): Promise<void> {
    await this.jobs.send(undefined, 'tell', await this.webhooksStore.due(this.database.kysely));
    await this.jobs.send(undefined, 'refresh', await this.linkedStore.due(this.database.kysely));
    await this.jobs.send(undefined, 'intake', await this.intakes.due(this.database.kysely));
  }
}
