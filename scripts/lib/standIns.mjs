// The stand-ins of stand-ins/, started and told to the server by its environment.
import { join } from 'node:path';
import { root } from './packages.mjs';

/** The house that they are given to. */
const demo = 'quillhaven';

/**
 * Stand-ins for the outside sources that the demo links, and for a program that it tells. What is configured from outside goes before them.
 */
export async function standIns(url) {
  // They need what is installed, so they are fetched only now.
  const { startListService } = await import('../../stand-ins/listService.mjs');
  const { layOutVesselRegistry } = await import('../../stand-ins/vesselRegistry.mjs');
  const { startReceiver } = await import('../../stand-ins/receiver.mjs');
  const service = await startListService();
  const receiver = await startReceiver();
  // Another PostgreSQL than our own may not let us make a database; the demo does without the registry then.
  const registry = await layOutVesselRegistry(url).catch(() => undefined);
  const {
    DELLUM_FILES = `${demo}: ${join(root, 'stand-ins', 'files')}`,
    DELLUM_DATABASES = registry && `${demo}: Vessel registry=${registry}`,
    DELLUM_SERVICES = `${demo}: Port list=${service.base}`,
    DELLUM_WEBHOOKS = `${demo}: Harbour board=${receiver.base}/messages`,
  } = process.env;
  const stop = () => {
    service.stop();
    receiver.stop();
  };
  const env = { DELLUM_FILES, DELLUM_SERVICES, DELLUM_WEBHOOKS, ...(DELLUM_DATABASES && { DELLUM_DATABASES }) };
  return { env, told: `${receiver.base}/messages`, stop };
}
