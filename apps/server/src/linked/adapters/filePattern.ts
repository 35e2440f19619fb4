// Which names a pattern means: `*` stands for any letters, `?` for one. Whatever else a pattern holds is itself.

/** True when the whole name fits, capitals and small letters alike. At most as many steps as the name has letters times the pattern's. */
export function fitsPattern(pattern: string, name: string): boolean {
  const [wanted, held] = [[...pattern.toLowerCase()], [...name.toLowerCase()]];
  let [at, from] = [0, 0];
  // Where the last star stands, and how much of the name it takes so far.
  let star: { readonly at: number; upTo: number } | undefined;
  while (from < held.length) {
    if (wanted[at] === '*') star = { at: at++, upTo: from };
    else if (at < wanted.length && (wanted[at] === '?' || wanted[at] === held[from])) {
      at++;
      from++;
    } else if (star) {
      at = star.at + 1;
      from = ++star.upTo;
    } else return false;
  }
  return wanted.slice(at).every((sign) => sign === '*');
}
