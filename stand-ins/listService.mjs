// A little list service over HTTP: JSON with an ETag, and some answers that go wrong.
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:http';

const ports = [
  ['BRW', 'Brackwater'],
  ['CDL', 'Candle Sound'],
  ['DUN', 'Dunmouth'],
  ['EBH', 'Ebbhaven'],
  ['FLD', 'Fleetdyke'],
  ['GAN', 'Gannet Point'],
];

/** Starts the service on a free port of loopback. `ports` can be changed while it runs. */
export async function startListService() {
  const list = ports.map(([code, name]) => ({ code, name }));
  const answers = {
    '/ports': (request, response) => {
      const body = JSON.stringify({ data: { ports: list } });
      const etag = `"${createHash('sha256').update(body).digest('hex').slice(0, 16)}"`;
      if (request.headers['if-none-match'] === etag) return response.writeHead(304).end();
      response.writeHead(200, { 'content-type': 'application/json', etag }).end(body);
    },
    '/broken': (_request, response) => response.writeHead(500).end('no'),
    '/page': (_request, response) => response.writeHead(200, { 'content-type': 'text/html' }).end('<h1>Hello</h1>'),
    '/elsewhere': (_request, response) => response.writeHead(302, { location: '/ports' }).end(),
    '/silent': () => undefined,
    '/endless': (_request, response) => {
      response.writeHead(200, { 'content-type': 'application/json' });
      const more = () => {
        while (response.write('x'.repeat(65_536)));
        response.once('drain', more);
      };
      response.on('error', () => undefined);
      more();
    },
  };
  const server = createServer((request, response) => {
    const answer = answers[new URL(request.url, 'http://localhost').pathname];
    if (answer) answer(request, response);
    else response.writeHead(404).end();
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    base: `http://127.0.0.1:${server.address().port}`,
    list,
    stop: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
