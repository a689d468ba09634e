/** More names than this are counted, not listed. */
const NAMED = 12;

/** Names in a sentence; of very many the first ones and how many more. */
export function joined(parts: readonly string[]): string {
  if (parts.length > NAMED) return `${parts.slice(0, NAMED - 2).join(', ')} and ${parts.length - NAMED + 2} more`;
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;
}
