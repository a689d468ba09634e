import { FEATURE_TABLE, type Feature, partCount } from '../part/feature.js';
import type { Slice, StageState } from '../stage/slice.js';
import { bandsOf, decodedMarks, type Marked, markedBands } from './markedBands.js';

type MarkedJob = Marked & { readonly depth: 'measure' | 'codes' };

/** What marks are judged with. */
export interface MarkFacts {
  readonly job: MarkedJob;
  readonly readings: readonly { readonly text: string }[];
  readonly features: readonly Feature[];
  /** The features whose marks the data sheet knows. */
  readonly coded: readonly Feature[];
  readonly parts: Readonly<Record<Feature, readonly { readonly disagreement: unknown }[]>>;
}

const carriesItsOwn = (feature: Feature) => FEATURE_TABLE[feature].marked === 'each';

/** True if the marks of a feature are typed as a row that cannot be read whole; a rod carries its own. */
function isUnread(job: MarkedJob, feature: Feature): boolean {
  if (carriesItsOwn(feature)) {
    const known = bandsOf(job.sheet, feature);
    return Object.values(job.rods).some(({ mark }) => mark !== '' && !known.some((band) => band.mark === mark));
  }
  const decoded = decodedMarks(job, feature);
  return decoded !== null && (!decoded.ok || decoded.marks.some(({ mark }) => mark === null));
}

function isAnyTyped(job: MarkedJob, feature: Feature): boolean {
  return carriesItsOwn(feature)
    ? Object.values(job.rods).some(({ mark }) => mark !== '')
    : (job.marks[feature]?.text.trim() ?? '') !== '';
}

function isWhole(job: MarkedJob, feature: Feature): boolean {
  return markedBands(job, feature).size === partCount(job.layout, feature);
}

function stateOf({ job, coded, parts, features }: MarkFacts): StageState {
  const isContradicted = features.some((feature) => parts[feature].some(({ disagreement }) => disagreement !== null));
  if (isContradicted || coded.some((feature) => isUnread(job, feature))) return 'attention';
  if (coded.every((feature) => isWhole(job, feature))) return 'done';
  return coded.some((feature) => markedBands(job, feature).size > 0) ? 'started' : 'open';
}

/** Marks on block, shaft and rods, where the data sheet knows them. */
export const codesSlice: Slice<'codes', MarkFacts> = {
  key: 'codes',
  belongs: ({ coded }) => coded.length > 0,
  state: stateOf,
  todos: ({ job, coded, readings }) => {
    const words = (feature: Feature) => FEATURE_TABLE[feature].words;
    const isUntouched = !coded.some((feature) => isAnyTyped(job, feature)) && readings.every(({ text }) => text === '');
    const unread = coded.filter((feature) => isUnread(job, feature));
    const unmarked =
      job.depth === 'codes' ? coded.filter((feature) => !isWhole(job, feature) && !unread.includes(feature)) : [];
    const [look] = [
      ...unread.map((feature) => `Check the marks of the ${words(feature)}`),
      ...unmarked.map((feature) => `Type the marks of the ${words(feature)}`),
    ];
    return [
      ...(isUntouched
        ? [
            {
              urgency: 'in-order' as const,
              todo: `Write down the marks before cleaning: ${coded.map(words).join(', ')}`,
            },
          ]
        : []),
      ...(look === undefined ? [] : [{ urgency: 'in-order' as const, todo: look }]),
    ];
  },
  placeWords: ([member, feature = '']) =>
    member === 'marks' ? `marks of the ${FEATURE_TABLE[feature as Feature]?.words ?? 'parts'}` : 'basis of selection',
};
