import type { DrawerHalf } from '../shell/workshopDrawer.js';
import type { JobShell } from './jobDocument.js';
import { cutText } from './storableText.js';

/** A kind of half of the workshop's drawer as a job draws on it. A numbered half is told apart by its number. */
export function shellOfLine(line: string, half: DrawerHalf): JobShell {
  const { family, series, grade, number, wall, band, undersize } = half;
  return {
    family,
    series,
    grade: cutText(number === undefined ? grade : `${grade} no. ${number}`, 40),
    half: half.half,
    wall,
    ...(band ? { band } : {}),
    ...(undersize === undefined ? {} : { undersize }),
    stock: null,
    line,
  };
}
