// How far two spellings are apart, in slips of the finger.

/**
 * Optimal string alignment distance: inserting, dropping, changing one character or swapping two neighbours
 * costs 1 each (Damerau 1964; Boytsov 2011, "restricted edit distance"). Stops at `most`: returns `most + 1`.
 */
export function slips(a: string, b: string, most: number): number {
  const left = [...a];
  const right = [...b];
  if (Math.abs(left.length - right.length) > most) return most + 1;
  let twoAbove: number[] = [];
  let above = Array.from({ length: right.length + 1 }, (_, column) => column);
  for (let row = 1; row <= left.length; row++) {
    const here = [row];
    for (let column = 1; column <= right.length; column++) {
      const same = left[row - 1] === right[column - 1];
      let cost = Math.min(above[column]! + 1, here[column - 1]! + 1, above[column - 1]! + (same ? 0 : 1));
      const swapped = row > 1 && column > 1 && left[row - 1] === right[column - 2] && left[row - 2] === right[column - 1];
      if (swapped) cost = Math.min(cost, twoAbove[column - 2]! + 1);
      here.push(cost);
    }
    if (Math.min(...here) > most) return most + 1;
    twoAbove = above;
    above = here;
  }
  return Math.min(above[right.length]!, most + 1);
}

/** How many slips still make two words of this length look alike: none below 3 letters, one in four beyond. */
export function slipsAllowed(length: number): number {
  return length < 3 ? 0 : Math.max(1, Math.floor(length / 4));
}
