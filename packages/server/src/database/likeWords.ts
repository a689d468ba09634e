/**
 * The words of a search as patterns for ILIKE, each to be found anywhere.
 *
 * @example likeWords('Reed 50%') // ['%Reed%', '%50\\%%']
 */
export function likeWords(words: string): string[] {
  return words
    .split(/\s+/u)
    .filter(Boolean)
    .map((word) => `%${word.replaceAll(/[\\%_]/gu, '\\$&')}%`);
}
