// One open stream of server-sent events. However it ends, what it held is let go of, once; what is written after its end is dropped.
import type { Response } from 'express';

/** A reader who takes no more is let go of when so much waits for it; bytes. It comes back and asks for what it missed. */
export const mostUnsent = 1024 * 1024;

export class EventStream {
  private readonly endings: (() => void)[] = [];
  private isOpen = true;
  private begun = false;

  constructor(private readonly response: Response) {
    // Whichever comes first: the reader goes, the connection breaks, or we end it.
    response.on('close', () => this.end());
    response.on('error', () => this.end());
    if (response.destroyed) this.end();
  }

  write(text: string): void {
    if (!this.isOpen) return;
    if (!this.begun)
      this.response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-store',
        'X-Accel-Buffering': 'no',
        Connection: 'close',
      });
    this.begun = true;
    this.response.write(text);
    if (this.response.writableLength > mostUnsent) this.end();
  }

  /** Does something when the stream ends; at once when it has ended. */
  onEnd(act: () => void): void {
    if (this.isOpen) this.endings.push(act);
    else act();
  }

  end(): void {
    if (!this.isOpen) return;
    this.isOpen = false;
    // What a reader has not taken by now it will not take. Of a stream that never began the answer is another one.
    if (this.response.writableLength > 0) this.response.destroy();
    else if (this.begun) this.response.end();
    for (const act of this.endings.splice(0)) act();
  }
}
