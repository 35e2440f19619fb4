// A browser's end of the live stream.
import type { Change, Whereabouts } from '@dellum/contract';
import { until, type Visitor } from './house.js';

export interface Ear {
  readonly heard: { seq: number; change: Change }[];
  readonly begun: string[];
  readonly places: Whereabouts[];
  readonly days: string[];
  stop(): void;
}

export async function listen(base: string, visitor: Visitor, after?: number): Promise<Ear> {
  const stopping = new AbortController();
  const response = await fetch(`${base}/api/v1/live${after === undefined ? '' : `?after=${after}`}`, {
    headers: { cookie: await visitor.signedIn() },
    signal: stopping.signal,
  });
  const ear: Ear = { heard: [], begun: [], places: [], days: [], stop: () => stopping.abort() };
  const read = async () => {
    let text = '';
    for await (const chunk of response.body!.pipeThrough(new TextDecoderStream())) {
      text += chunk;
      const events = text.split('\n\n');
      text = events.pop()!;
      for (const event of events) {
        const part = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(event)?.[1] ?? '';
        if (part('event') === 'change') ear.heard.push({ seq: Number(part('id')), change: JSON.parse(part('data')) as Change });
        else if (part('event') === 'place') ear.places.push(JSON.parse(part('data')) as Whereabouts);
        else if (part('event') === 'day') ear.days.push(part('data'));
        else if (part('event')) ear.begun.push(`${part('event')} ${part('id')}`);
      }
    }
  };
  void read().catch(() => undefined);
  await until(async () => ear.begun.length > 0);
  return ear;
}
