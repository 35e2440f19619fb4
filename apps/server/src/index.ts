// Door of the server for the demo loader, the tests and the bench.
export { createServer, type ServerOptions } from './server.js';
export { edgeFrom } from './api/edgeConfig.js';
export { Metrics } from './metrics/metrics.js';
export { Database, holdBuild, lockBuild, type Trx } from './database/database.js';
export { prepareAppRole, type AppRole } from './database/appRole.js';
export { migrate } from './database/migrate.js';
export type { Tables } from './database/tables.js';
export { makeHouse } from './houses/houses.service.js';
export { demoAccounts } from './houses/demoAccounts.js';
export { hashPassword } from './people/passwords.js';
export { PlacesStore, posGap } from './entries/places.store.js';
export { EntriesStore } from './entries/entries.store.js';
export { CountsStore, countKey } from './counts/counts.store.js';
export { EntriesService } from './entering/entries.service.js';
export type { Caller } from './access/access.js';
export { WorkersService } from './workers/workers.service.js';
export { CatalogsService } from './catalogs/catalogs.service.js';
export type { ReachableConfig } from './linked/reachable.js';
