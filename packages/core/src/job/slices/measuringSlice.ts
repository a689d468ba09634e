import { FEATURE_TABLE, type Feature, type MeasuringStage, partName } from '../../part/feature.js';
import type { JobFacts } from '../jobFacts.js';
import { isWanting } from '../jobStations.js';
import type { Slice, StageState } from '../slice.js';

function stateOf({ job, parts, doubtful }: JobFacts, feature: Feature): StageState {
  const own = parts[feature];
  const isOff = own.some(({ findings, isOutdated }) => findings.length > 0 || isOutdated);
  if (isOff || doubtful.some((reading) => reading.feature === feature)) return 'attention';
  if (own.every((part) => !isWanting(job, part))) return 'done';
  return own.some(({ size }) => size?.kind === 'read') ? 'started' : 'open';
}

/** Reading one feature along the shaft, or rod by rod. */
export function measuringSlice(feature: Feature): Slice<MeasuringStage> {
  const { stage, word, words } = FEATURE_TABLE[feature];
  return {
    key: stage,
    owns: ['measuring'],
    belongs: ({ features }) => features.includes(feature),
    state: (facts) => stateOf(facts, feature),
    todos: ({ job, parts, doubtful }) => {
      const doubt = doubtful.find((reading) => reading.feature === feature);
      const blocked = parts[feature].filter(({ findings }) => findings.length > 0);
      const missing = parts[feature].filter((part) => isWanting(job, part));
      const outdated = parts[feature].filter(({ isOutdated }) => isOutdated);
      const names = (list: readonly { name: string }[]) => list.map(({ name }) => name).join(', ');
      return [
        ...(doubt
          ? [
              {
                turn: 'amiss' as const,
                todo: `Look again at ${partName(feature, doubt.station)}: “${doubt.text}” cannot be right`,
              },
            ]
          : []),
        ...(blocked.length > 0
          ? [
              {
                turn: 'blocked' as const,
                todo: `${names(blocked)} outside the data sheet: read again, then machine`,
              },
            ]
          : []),
        ...(outdated.length > 0
          ? [
              {
                turn: 'in-turn' as const,
                todo: `Read the ${word} at ${names(outdated)} again: the fasteners were changed since`,
              },
            ]
          : []),
        ...(missing.length > 0 ? [{ turn: 'in-turn' as const, todo: `Read the ${word} at ${names(missing)}` }] : []),
      ];
    },
    placeWords: ([, field = '', at = '']) => {
      const of = FEATURE_TABLE[at as Feature]?.words ?? words;
      if (field === 'slots') return `where the ${of} are read`;
      if (field === 'setting') return `setting size for the ${of}`;
      if (field === 'celsius') return `temperature of the ${of}`;
      if (field === 'gaugeCelsius') return 'temperature of the instruments';
      if (field === 'uncertainty') return 'uncertainty of a reading';
      return 'order of measuring';
    },
  };
}
