import type { JobDocument } from '../jobDocument.js';
import type { Slice } from '../slice.js';

/** Whether the sheet was printed with the choice that is accepted now. */
function isPrinted({ printed, choice }: JobDocument): boolean {
  return printed !== null && (choice === null || printed.at >= choice.at);
}

/** The sheet that stays with the engine: it is where the work ends. */
export const sheetSlice: Slice<'sheet'> = {
  key: 'sheet',
  owns: ['printed'],
  state: ({ job }) => (isPrinted(job) ? 'done' : 'open'),
  todos: ({ job }) =>
    isPrinted(job) ? [] : [{ turn: 'in-turn', todo: 'Print the sheet and keep it with the engine' }],
  sheet: ({ readings, parts, features }) => {
    const people = [...new Set(readings.filter(({ nm }) => nm !== null).map(({ by }) => by))].join(', ');
    const isByMarks = features.some((feature) => parts[feature].some(({ size }) => size?.kind === 'marked'));
    return [
      { kind: 'fact', label: 'Measured by', text: people || 'nobody yet' },
      ...(isByMarks
        ? [
            {
              kind: 'note' as const,
              text: 'Where a mark stands the part was not measured: its size is the middle of what the mark stands for.',
            },
          ]
        : []),
      {
        kind: 'note',
        text: "The figures are an aid: the engine maker's current data, local rules and licensed practice decide. Lift the crank with help; keep fingers clear when it turns.",
      },
    ];
  },
  placeWords: () => 'the sheet',
};
