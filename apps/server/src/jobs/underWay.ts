// What a server does now. A job whose lease ran out is taken up again, be it by the server that still works on it: that one waits for
// itself then, instead of beginning beside itself what was too much already.

export class UnderWay {
  private readonly all = new Map<string, Promise<void>>();

  /** Does the work, or waits for the same that was begun before. `id`: of the job, which keeps it when it is taken up again. */
  join(id: string, work: () => Promise<void>): Promise<void> {
    const before = this.all.get(id);
    if (before) return before;
    const begun = work().finally(() => this.all.delete(id));
    this.all.set(id, begun);
    return begun;
  }
}
