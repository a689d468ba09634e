/**
 * Some of the mains of a shaft as one writes them: `1-3, 5`.
 *
 * @param mains numbers, 1 at the front, in any order
 * @example mainListText([1, 2, 3, 5]) // '1-3, 5'
 */
export function mainListText(mains: readonly number[]): string {
  const sorted = [...new Set(mains)].sort((one, other) => one - other);
  const runs: [number, number][] = [];
  for (const main of sorted) {
    const last = runs.at(-1);
    if (last && last[1] === main - 1) last[1] = main;
    else runs.push([main, main]);
  }
  return runs.map(([from, to]) => (from === to ? `${from}` : `${from}-${to}`)).join(', ');
}

/**
 * Reads some of the mains of a shaft as they are written: numbers, 1 at the front, and ranges, separated by commas, semicolons or blanks.
 *
 * @param count how many mains there are
 * @returns the numbers in rising order, each once; or what is wrong with the text
 * @example readMainList('1-3 5', 5) // { ok: true, mains: [1, 2, 3, 5] }
 * @example readMainList('4-6', 5).message // 'There is no main 6: the shaft has 5. Write 1-3 or 1, 2, 5.'
 */
export function readMainList(
  text: string,
  count: number,
): { readonly ok: true; readonly mains: number[] } | { readonly ok: false; readonly message: string } {
  const how = 'Write 1-3 or 1, 2, 5.';
  const mains = new Set<number>();
  for (const part of text.replaceAll(/\s*[-–]\s*/gu, '-').split(/[,;\s]+/u)) {
    if (part === '') continue;
    const [, from, to = from] = /^M?(\d{1,2})(?:-M?(\d{1,2}))?$/iu.exec(part) ?? [];
    if (from === undefined) return { ok: false, message: `“${part}” is no main. ${how}` };
    const [low, high] = [Number(from), Number(to)].sort((one, other) => one - other) as [number, number];
    if (low < 1) return { ok: false, message: `Mains are counted from 1. ${how}` };
    if (high > count) return { ok: false, message: `There is no main ${high}: the shaft has ${count}. ${how}` };
    for (let main = low; main <= high; main += 1) mains.add(main);
  }
  return { ok: true, mains: [...mains].sort((one, other) => one - other) };
}
