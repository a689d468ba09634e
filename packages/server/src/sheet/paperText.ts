/** What the Latin part of the shipped fonts draws; its extended part draws the other Latin letters. */
const LATIN =
  /[\u0020-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]/u;
const EXTENDED =
  /[\u0100-\u02ba\u02bd-\u02c5\u02c7-\u02cc\u02ce-\u02d7\u02dd-\u02ff\u1d00-\u1dbf\u1e00-\u1e9f\u1ef2-\u1eff\u20a0-\u20c0\u2113]/u;

/** A stretch of text in one font. */
export interface Run {
  readonly text: string;
  readonly font: 'Text' | 'TextExtended' | 'Figures' | 'FiguresExtended';
}

/** What stands for a sign that the fonts of the sheet do not have. */
export const UNKNOWN = '?';

/**
 * Text for paper, cut where another font has to draw it: the fonts that ship hold Latin letters only, in two files. Any other sign is
 * printed as a question mark; the page and the files hold it as it was typed.
 */
export function paperText(text: string, face: 'Text' | 'Figures' = 'Text'): Run[] {
  const runs: { text: string; font: Run['font'] }[] = [];
  for (const sign of text) {
    const isExtended = !LATIN.test(sign) && EXTENDED.test(sign);
    const font: Run['font'] = isExtended ? `${face}Extended` : face;
    const drawn = LATIN.test(sign) || isExtended ? sign : /\s/u.test(sign) ? ' ' : UNKNOWN;
    const last = runs.at(-1);
    if (last?.font === font) last.text += drawn;
    else runs.push({ text: drawn, font });
  }
  return runs;
}
