import { z } from 'zod';
import { unitSchema } from './unit.js';

/** How a gauge with a data cable writes what it shows. */
export const gaugeLineSchema = z.strictObject({
  pattern: z
    .string()
    .max(60, 'at most 60 characters')
    .refine((text) => text.split('#').length === 2, 'put one # where the figure goes')
    .describe('A line as the gauge sends it, with # for the figure: `01A#`.'),
  unit: unitSchema.nullable().describe('Unit of the figures; null: as the engine.'),
  baud: z.int().min(300).max(921_600).describe('Baud rate.'),
});
export type GaugeLine = z.output<typeof gaugeLineSchema>;

/** A gauge that sends the bare figure and the end of the line. */
export const PLAIN_LINE: GaugeLine = { pattern: '#', unit: null, baud: 9600 };

export type GaugeText =
  /** What to type for it. */
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly message: string };

/**
 * What a line of a gauge says, as it would be typed: its figure, with the unit that the format gives it. Leading zeros that gauges pad
 * with are left out; nothing else is changed.
 *
 * @param line without its end
 * @example gaugeText('01A+00062.003', { pattern: '01A#', unit: 'mm', baud: 9600 }) // { ok: true, text: '+62.003 mm' }
 */
export function gaugeText(line: string, { pattern, unit }: GaugeLine): GaugeText {
  const [before = '', after = ''] = pattern.split('#');
  const trimmed = line.trim();
  const isOfPattern = trimmed.startsWith(before.trimStart()) && trimmed.endsWith(after.trimEnd());
  const figure = trimmed.slice(before.trimStart().length, trimmed.length - after.trimEnd().length).trim();
  const match = /^([+\-−]?)\s*0*((?=\d)\d+(?:[.,]\d*)?|(?<!0)[.,]\d+)$/u.exec(figure);
  if (!isOfPattern || !match) {
    return { ok: false, message: `The gauge sent “${trimmed}”, which is not as ${pattern}; # is the figure.` };
  }
  return { ok: true, text: `${match[1]}${match[2]}${unit === null ? '' : ` ${unit}`}` };
}

/** Cuts what comes from a gauge into lines; a line may come in pieces, and ends with a carriage return, a line feed or both. */
export class GaugeLines {
  private rest = '';

  /** @returns the lines that are whole now, empty ones left out */
  take(chunk: string): string[] {
    const lines = (this.rest + chunk).split(/[\r\n]+/u);
    this.rest = (lines.pop() ?? '').slice(-LONGEST_LINE);
    return lines.map((line) => line.trim()).filter((line) => line !== '');
  }
}

/** A gauge that never ends its line does not fill the memory. */
const LONGEST_LINE = 200;
