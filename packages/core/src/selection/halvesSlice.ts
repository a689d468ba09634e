import { workedOutText } from '../measure/lengthText.js';
import { shellLabel } from '../shell/half.js';
import type { SheetBlock } from '../stage/sheetBlock.js';
import type { Slice } from '../stage/slice.js';
import type { SelectionFacts } from './selectionJob.js';

const FIELDS: Readonly<Record<string, string>> = {
  stock: 'count',
  wall: 'wall',
  width: 'width over the flanges',
  band: 'band',
  series: 'series',
  grade: 'grade',
  half: 'side',
  undersize: 'undersize',
  positions: 'places',
  family: 'family',
  seen: 'wall as seen here',
};

/** The halves that an engine may take: its own, and those of the workshop that it draws on. */
export const halvesSlice: Slice<'drawer', SelectionFacts> = {
  key: 'drawer',
  state: ({ job }) => {
    const shells = Object.values(job.shells);
    // What was not counted may not be there: that is no drawer one can rely on.
    const isCounted = shells.every(({ stock, line }) => stock !== null || line !== null);
    return shells.length === 0 ? 'open' : isCounted ? 'done' : 'started';
  },
  todos: ({ job }) =>
    Object.keys(job.shells).length > 0 ? [] : [{ urgency: 'in-order', todo: 'Enter the shells in stock' }],
  // Whoever reads the sheet knows that these walls are neither measured nor the grade's.
  sheet: ({ job: { shells, unit } }) =>
    Object.values(shells).flatMap((shell): SheetBlock[] => {
      const { seen, wall } = shell;
      if (!seen) return [];
      const grade = `the grade says ${workedOutText(seen.was.wall, unit)}`;
      const text = `${shell.series} ${shellLabel(shell)}: counted with a wall of ${workedOutText(wall, unit)} ${unit}, as seen in ${seen.engines} engines here; ${grade}. By ${seen.by}.`;
      return [{ kind: 'note', text }];
    }),
  placeWords: ([, id = '', field = ''], { shells }) => {
    const half = shells[id];
    const label = half ? shellLabel(half) : 'a shell';
    return FIELDS[field] === undefined ? label : `${FIELDS[field]} of ${label}`;
  },
};
