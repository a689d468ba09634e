import { cutText } from '../document/storableText.js';
import type { DrawerHalf } from '../drawer/workshopDrawer.js';
import { halfOf } from '../shell/half.js';
import type { JobShell } from '../shell/jobShell.js';

/** A kind of half of the workshop's drawer as a job draws on it. A numbered half is told apart by its number. */
export function shellOfLine(line: string, half: DrawerHalf): JobShell {
  const { grade, number } = half;
  return {
    ...halfOf(half),
    grade: cutText(number === undefined ? grade : `${grade} no. ${number}`, 40),
    stock: null,
    line,
  };
}
