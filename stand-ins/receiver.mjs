// A little program that is told by webhooks: it keeps the last messages and checks how they are signed, after the Standard Webhooks
// specification.
import { once } from 'node:events';
import { createServer } from 'node:http';
import { Webhook } from 'standardwebhooks';

const mostKept = 50;

/** What a message is worth to one who has the secret, or has none yet. */
function signedAs(secret, body, headers) {
  if (secret === undefined) return 'not checked';
  try {
    new Webhook(secret).verify(body, headers);
    return 'good';
  } catch {
    return 'wrong';
  }
}

async function bodyOf(request) {
  const chunks = [];
  for await (const chunk of request) chunks.push(chunk);
  return Buffer.concat(chunks).toString('utf8');
}

/**
 * Starts it on a free port of loopback. `POST /messages` takes a message, `GET /messages` shows the last ones, the newest first, and
 * `PUT /secret` tells it with what they are signed. `answer` can be changed while it runs.
 */
export async function startReceiver() {
  const receiver = {
    messages: [],
    secret: undefined,
    /** How messages are answered. */
    answer: (response) => response.writeHead(204).end(),
  };
  const answers = {
    'GET /messages': (_request, response) =>
      response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(receiver.messages)),
    'PUT /secret': async (request, response) => {
      receiver.secret = (await bodyOf(request)).trim();
      response.writeHead(204).end();
    },
    'POST /messages': async (request, response) => {
      const body = await bodyOf(request);
      const { 'webhook-id': id } = request.headers;
      receiver.messages.unshift({ id, signature: signedAs(receiver.secret, body, request.headers), ...JSON.parse(body) });
      receiver.messages.splice(mostKept);
      receiver.answer(response);
    },
  };
  const server = createServer((request, response) => {
    const answer = answers[`${request.method} ${new URL(request.url, 'http://localhost').pathname}`];
    if (!answer) return response.writeHead(404).end();
    Promise.resolve(answer(request, response)).catch(() => response.writeHead(400).end());
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return Object.assign(receiver, {
    base: `http://127.0.0.1:${server.address().port}`,
    stop: () => {
      server.closeAllConnections();
      server.close();
    },
  });
}
