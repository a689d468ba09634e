import type { Slice } from '../stage/slice.js';
import type { PlugsMembers } from './plugsPart.js';

/** What the plugs are judged with. */
export interface PlugsFacts {
  readonly job: PlugsMembers;
}

/** The plugs of the oil galleries: each taken out for washing goes back in. */
export const plugsSlice: Slice<'plugs', PlugsFacts> = {
  key: 'plugs',
  belongs: ({ job }) => Object.keys(job.plugs).length > 0,
  state: ({ job }) => (Object.values(job.plugs).every((one) => one !== null) ? 'done' : 'started'),
  todos: ({ job }) =>
    Object.entries(job.plugs).flatMap(([name, one]) =>
      one === null ? [{ turn: 'in-turn' as const, todo: `Fit the plug: ${name}` }] : [],
    ),
  placeWords: ([, name = '']) => (name === '' ? 'plugs of the oil galleries' : `plug ${name}`),
};
