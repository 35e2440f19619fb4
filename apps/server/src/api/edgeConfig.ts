// Under which names the server answers, and whose word it takes for who asks: configured where it is started.

export interface EdgeConfig {
  /**
   * The addresses of proxies in front of the server whose `X-Forwarded-` headers are believed, as Express takes them; undefined for none.
   */
  readonly proxies: string | undefined;
  /** The host names under which it answers, beside `localhost` and addresses written as numbers. */
  readonly hosts: readonly string[];
}

export const edgeFrom = (env: NodeJS.ProcessEnv): EdgeConfig => ({
  proxies: env['DELLUM_PROXIES']?.trim() || undefined,
  hosts: (env['DELLUM_HOSTS'] ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== ''),
});
