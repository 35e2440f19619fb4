// One live stream a browser, shared by its tabs: the tab that holds the lock reads it and passes it on.
import { liveEvents, type Change, type Whereabouts } from '@dellum/contract';

export type Heard =
  | { readonly kind: 'change'; readonly change: Change }
  | { readonly kind: 'place'; readonly place: Whereabouts }
  | { readonly kind: 'day'; readonly day: string }
  | { readonly kind: 'anew' }
  | { readonly kind: 'live' }
  | { readonly kind: 'away' };

/** The last number this browser has heard, whichever tab read it. */
interface Passed {
  readonly heard: Heard;
  readonly seq: number | null;
}

const retryAfter = 1000;

/** Starts hearing; returns how to stop. `scope` keeps the houses of one browser apart. */
export function hearLive(scope: string, hear: (heard: Heard) => void): () => void {
  const channel = new BroadcastChannel(`dellum.live.${scope}`);
  const stopping = new AbortController();
  let last: number | null = null;
  channel.onmessage = ({ data }: MessageEvent<Passed | 'who'>) => {
    if (data === 'who') return;
    last = data.seq ?? last;
    hear(data.heard);
  };
  const pass = (heard: Heard) => {
    hear(heard);
    channel.postMessage({ heard, seq: last } satisfies Passed);
  };

  const read = () =>
    new Promise<void>((resolve) => {
      const end = readStream(
        () => last,
        (seq) => (last = seq),
        pass,
      );
      // A tab that opens later asks how things stand.
      channel.addEventListener(
        'message',
        ({ data }: MessageEvent<Passed | 'who'>) =>
          data === 'who' && end.isOpen() && channel.postMessage({ heard: { kind: 'live' }, seq: last }),
      );
      stopping.signal.addEventListener('abort', () => {
        end.close();
        resolve();
      });
    });
  channel.postMessage('who');
  // Without secure context there are no locks; then every tab reads for itself.
  if (navigator.locks) navigator.locks.request(`dellum.live.${scope}`, { signal: stopping.signal }, read).catch(() => undefined);
  else void read();
  return () => {
    stopping.abort();
    channel.close();
  };
}

function readStream(
  last: () => number | null,
  reached: (seq: number) => void,
  pass: (heard: Heard) => void,
): { close(): void; isOpen(): boolean } {
  let source: EventSource | undefined;
  let retry: number | undefined;
  let closed = false;
  const open = () => {
    const from = last();
    source = new EventSource(`/api/v1/live${from === null ? '' : `?after=${from}`}`);
    const at = (event: MessageEvent) => reached(Number(event.lastEventId));
    source.addEventListener(liveEvents.ready, (event) => {
      at(event);
      pass({ kind: 'live' });
    });
    source.addEventListener(liveEvents.anew, (event) => {
      at(event);
      pass({ kind: 'anew' });
    });
    source.addEventListener(liveEvents.change, (event: MessageEvent<string>) => {
      at(event);
      pass({ kind: 'change', change: JSON.parse(event.data) as Change });
    });
    source.addEventListener(liveEvents.place, (event: MessageEvent<string>) =>
      pass({ kind: 'place', place: JSON.parse(event.data) as Whereabouts }),
    );
    source.addEventListener(liveEvents.day, (event: MessageEvent<string>) => pass({ kind: 'day', day: event.data }));
    source.onerror = () => {
      source?.close();
      if (closed) return;
      pass({ kind: 'away' });
      retry = window.setTimeout(open, retryAfter);
    };
  };
  open();
  return {
    close: () => {
      closed = true;
      window.clearTimeout(retry);
      source?.close();
    },
    isOpen: () => source?.readyState === EventSource.OPEN,
  };
}
