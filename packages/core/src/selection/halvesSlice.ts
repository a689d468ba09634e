import { shellLabel } from '../shell/half.js';
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
    Object.keys(job.shells).length > 0 ? [] : [{ turn: 'in-turn', todo: 'Enter the shells in stock' }],
  placeWords: ([, id = '', field = ''], { shells }) => {
    const half = shells[id];
    const label = half ? shellLabel(half) : 'a shell';
    return FIELDS[field] === undefined ? label : `${FIELDS[field]} of ${label}`;
  },
};
