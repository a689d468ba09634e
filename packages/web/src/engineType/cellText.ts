import type { TableCell } from '@fettle/core';
import { gradesOfCell } from '@fettle/core';

/** A cell as text: one grade, or the upper and the lower one with a stroke between. */
export function textOfCell(cell: TableCell | undefined): string {
  if (cell === undefined) return '';
  const { upper, lower } = gradesOfCell(cell);
  return upper === lower ? upper : `${upper}/${lower}`;
}

/** The grade that a word means: its name in any case, or the one name that starts like it. */
function gradeOf(word: string, grades: readonly string[]): string | null {
  const typed = word.trim().toLowerCase();
  const exact = grades.find((grade) => grade === word.trim()) ?? grades.find((grade) => grade.toLowerCase() === typed);
  if (exact !== undefined) return exact;
  const starting = grades.filter((grade) => grade.toLowerCase().startsWith(typed));
  return typed !== '' && starting.length === 1 ? starting[0]! : null;
}

/**
 * Reads a cell of a selection table: a grade, or upper/lower with a stroke, plus or line between them. The first letters of a grade
 * are enough where they tell it from the others.
 *
 * @returns the cell, and what is wrong with it; both null while it is empty
 */
export function readCell(
  text: string,
  grades: readonly string[],
): { readonly cell: TableCell | null; readonly message: string | null } {
  if (text.trim() === '') return { cell: null, message: null };
  const whole = gradeOf(text, grades);
  if (whole !== null) return { cell: whole, message: null };
  const words = text.split(/\s*[/+|]\s*/u);
  if (words.length > 2) return { cell: null, message: 'One grade, or upper/lower.' };
  const read = words.map((word) => gradeOf(word, grades));
  const unknown = read.indexOf(null);
  if (unknown !== -1) {
    const known = grades.length === 0 ? 'enter the grades first' : `grades: ${grades.join(', ')}`;
    return { cell: null, message: `No grade “${words[unknown]!.trim()}”: ${known}.` };
  }
  const [upper, lower] = [read[0]!, read[1] ?? read[0]!];
  return { cell: upper === lower ? upper : { upper, lower }, message: null };
}
