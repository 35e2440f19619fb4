// Servers as processes of their own, and somebody who calls them.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

export interface Server {
  readonly base: string;
  /** Resident memory in MB. */
  memory(): number;
  stop(): Promise<void>;
}
export interface Caller {
  readonly cookie: string;
  call<T>(method: string, path: string, body?: unknown): Promise<T>;
}

const web = fileURLToPath(new URL('../../apps/web/dist', import.meta.url));
const main = fileURLToPath(new URL('../../apps/server/dist/main.js', import.meta.url));

export async function serve(databaseUrl: string): Promise<Server> {
  const child = spawn(process.execPath, [main], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', DELLUM_WEB: web },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let port = '';
  for await (const line of createInterface({ input: child.stdout })) if ((port = /^listening (\d+)/.exec(line)?.[1] ?? '')) break;
  return {
    base: `http://127.0.0.1:${port}`,
    memory: () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) / 1024,
    stop: async () => {
      child.kill('SIGTERM');
      if (child.exitCode === null) await once(child, 'exit');
    },
  };
}

export async function signIn(base: string, house: string): Promise<Caller> {
  const answer = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ house, signIn: 'bench', password: 'bench-password' }),
  });
  return caller(base, answer.headers.get('set-cookie')!.split(';')[0]!);
}

export const caller = (base: string, cookie: string): Caller => ({
  cookie,
  async call<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await fetch(`${base}/api/v1${path}`, {
      method,
      headers: { cookie, ...(body !== undefined && { 'content-type': 'application/json' }) },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${await response.text()}`);
    return (response.status === 204 ? undefined : await response.json()) as T;
  },
});
