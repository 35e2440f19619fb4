// What follows from the sources of a house is found once a version of them, however many ask for it meanwhile.

export class OncePerVersion<Found> {
  private readonly known = new Map<string, { readonly version: number; readonly found: Promise<Found> }>();

  /** What was found for this version of the house; `find` is called when nobody has asked yet, or when it failed. */
  of({ houseId, version }: { readonly houseId: string; readonly version: number }, find: () => Promise<Found>): Promise<Found> {
    const known = this.known.get(houseId);
    if (known?.version === version) return known.found;
    const mine = { version, found: find() };
    this.known.set(houseId, mine);
    mine.found.catch(() => {
      // Whoever asks next tries again: the database may have been away.
      if (this.known.get(houseId) === mine) this.known.delete(houseId);
    });
    return mine.found;
  }
}
