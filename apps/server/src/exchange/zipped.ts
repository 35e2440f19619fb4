// A ZIP in the making, step by step.
import type { Piece } from './writer.js';
import { added, begun, closed, ended, noZip, stored, type ZipState } from './zip.js';

/** A ZIP to which one step after another is added. */
export class Zipped {
  private readonly bytes: Buffer[] = [];

  constructor(private state: ZipState = noZip) {}

  private take({ state, bytes }: { readonly state: ZipState; readonly bytes: Buffer }): this {
    this.state = state;
    this.bytes.push(bytes);
    return this;
  }
  stored = (name: string, text: string): this => this.take(stored(this.state, name, text));
  begun = (name: string): this => this.take(begun(this.state, name));
  added = async (text: string): Promise<this> => this.take(await added(this.state, text));
  ended = (): this => this.take(ended(this.state));
  closed = (): this => this.take({ state: this.state, bytes: closed(this.state) });
  whole = async (name: string, text: string): Promise<this> => (await this.begun(name).added(text)).ended();
  piece = (): Piece<ZipState> => ({ bytes: Buffer.concat(this.bytes), state: this.state });
}
