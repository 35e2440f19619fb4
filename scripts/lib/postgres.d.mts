export interface Cluster {
  readonly url: string;
  readonly port: number;
  stop(): void;
}
export function startCluster(dataFolder: string, settings?: Readonly<Record<string, string | number>>): Promise<Cluster>;
export function freePort(): Promise<number>;
export function ensurePostgres(): void;
