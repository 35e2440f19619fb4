import type { ServerResponse } from 'node:http';

export interface ReceivedMessage {
  readonly id: string;
  readonly signature: 'good' | 'wrong' | 'not checked';
  readonly type: string;
  readonly timestamp: string;
  readonly data: Readonly<Record<string, unknown>>;
}
export interface Receiver {
  readonly base: string;
  readonly messages: readonly ReceivedMessage[];
  secret: string | undefined;
  answer: (response: ServerResponse) => void;
  stop(): void;
}
export function startReceiver(): Promise<Receiver>;
