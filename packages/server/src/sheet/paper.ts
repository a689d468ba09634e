import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { momentText } from '@fettle/core';
import pdfmake from 'pdfmake';
import { paperText, UNKNOWN } from './paperText.js';
import { unpackWoff } from './unpackWoff.js';

export type Definition = Parameters<typeof pdfmake.createPdf>[0];

/** Who reads the dates on a paper: language and country, BCP 47, and time zone. */
export interface Reader {
  readonly zone: string;
  readonly locale: string;
}

const require = createRequire(import.meta.url);

/** Where pdfmake looks for files before it looks at the disk; its types do not name it. */
const { virtualfs } = pdfmake as unknown as { virtualfs: { writeFileSync(name: string, data: Buffer): void } };

/** Puts a font, unpacked once, where pdfmake finds it. @returns its name there */
function fontFile(name: string): string {
  const file = require.resolve(`@fontsource/atkinson-hyperlegible-${name}.woff`);
  virtualfs.writeFileSync(`${name}.ttf`, unpackWoff(readFileSync(file)));
  return `${name}.ttf`;
}

const face = (family: 'next' | 'mono', part: 'latin' | 'latin-ext') => {
  const file = (weight: number) => fontFile(`${family}/files/atkinson-hyperlegible-${family}-${part}-${weight}-normal`);
  return { normal: file(400), bold: file(700) };
};

// Nothing is read and nothing is fetched: the fonts are here.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy(() => false);
pdfmake.addFonts({
  Text: face('next', 'latin'),
  TextExtended: face('next', 'latin-ext'),
  Figures: face('mono', 'latin'),
  FiguresExtended: face('mono', 'latin-ext'),
});

/** Margin on every side, points. */
export const MARGIN = 34;
export const WIDTHS = { A4: 595.28, Letter: 612 } as const;
/**
 * A moment as the asking device writes dates. Where its language is written in signs that the fonts of the sheet do not have, as it is
 * written in English.
 */
export function paperMoment(at: string, { locale, zone }: Reader): string {
  const own = momentText(at, 'day and time', { locale, zone }).replace(/\s/gu, ' ');
  const isDrawn = paperText(own).every(({ text }) => !text.includes(UNKNOWN));
  return isDrawn ? own : momentText(at, 'day and time', { locale: 'en-GB', zone });
}

/** A paper as PDF, set in the fonts that ship. */
export async function pdfOf(definition: Definition): Promise<Uint8Array> {
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer());
}
