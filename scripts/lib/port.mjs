// The port that people come to.
import { once } from 'node:events';
import { createServer } from 'node:net';
import { Stop } from './say.mjs';

/** Says at once that a port is taken, before anything is built. `command`: what is called with another one. */
export async function checkPort(port, command) {
  const probe = createServer();
  try {
    probe.listen(port, '127.0.0.1');
    await once(probe, 'listening');
  } catch (error) {
    if (error.code === 'EACCES') throw new Stop(`Port ${port} needs more rights than you have. Choose another: PORT=4170 ${command}`);
    throw new Stop(`Port ${port} is taken. Choose another: PORT=${port + 1} ${command}`);
  } finally {
    probe.close();
  }
}
