import { BLANK_ASSEMBLY } from '../assembly/assemblySchema.js';
import { USUAL_WARM } from '../clearance/temperature.js';
import { BLANK_CRUSH } from '../crush/crushSchema.js';
import type { StoredDocument, UpgradeStep } from '../document/versioned.js';
import { blankEndPlay } from '../endPlay/endPlaySchema.js';
import { usualInstruments } from '../measure/instrument.js';
import { eachFeature } from '../part/feature.js';
import { BLANK_RUNOUT } from '../runout/runoutSchema.js';
import { BLANK_TIGHTENED } from '../torque/tightenedSchema.js';
import { UNKNOWN_FASTENERS } from '../trial/trialSchema.js';

function recordOf(value: unknown): StoredDocument {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as StoredDocument) : {};
}

/**
 * Documents from before there were versions: the earliest know no rods, no codes, no workshop drawer and no data sheet. What they
 * leave out is what it was then, so that nothing is assumed that the fitter has not seen.
 */
function fromUnversioned(document: StoredDocument): StoredDocument {
  const measuring = recordOf(document.measuring);
  const rules = recordOf(document.rules);
  const shells = Object.entries(recordOf(document.shells)).map(([id, half]) => [
    id,
    { family: 'main', line: null, ...recordOf(half) },
  ]);
  return {
    origin: null,
    sheet: null,
    marks: {},
    depth: 'measure',
    withRods: false,
    rods: {},
    wishes: {},
    ...document,
    format: 'fettle.job/1',
    measuring: {
      uncertainty: 2000,
      ...measuring,
      slots: { bigEnd: ['front', 'rear'], pin: ['front-0', 'front-90'], ...recordOf(measuring.slots) },
      setting: { bigEnd: null, pin: null, ...recordOf(measuring.setting) },
    },
    rules: { rodAim: { kind: 'middle' }, maxRodSpread: null, ...rules },
    shells: Object.fromEntries(shells),
  };
}

/** Documents from before end play and crush: nothing was read, and the settings are the usual ones of its unit. */
function withEndPlay(document: StoredDocument): StoredDocument {
  const unit = document.unit === 'in' ? 'in' : 'mm';
  return { pieces: {}, crush: BLANK_CRUSH, endPlay: blankEndPlay(unit), ...document, format: 'fettle.job/2' };
}

/** Documents from before trials: nothing was tried, and the instruments are the usual ones of its unit. */
function withTrials(document: StoredDocument): StoredDocument {
  const unit = document.unit === 'in' ? 'in' : 'mm';
  return {
    instruments: usualInstruments(unit),
    trials: {},
    strips: {},
    runout: BLANK_RUNOUT,
    warm: USUAL_WARM,
    trialSchool: document.depth === 'codes' ? 'codes' : 'every',
    fasteners: { main: UNKNOWN_FASTENERS, rod: UNKNOWN_FASTENERS },
    ...document,
    rules: { leastChance: null, ...recordOf(document.rules) },
    measuring: { celsius: eachFeature(() => null), gaugeCelsius: null, ...recordOf(document.measuring) },
    format: 'fettle.job/3',
  };
}

/** Documents from before limits by place: the sheet's limits hold for every main; nothing is known of what instruments reach, or of printing. */
function withPlaces(document: StoredDocument): StoredDocument {
  const instruments = Object.entries(recordOf(document.instruments)).map(([role, one]) => [
    role,
    { range: null, ball: null, ...recordOf(one) },
  ]);
  return {
    mainLimits: {},
    printed: null,
    ...document,
    instruments: Object.fromEntries(instruments),
    format: 'fettle.job/4',
  };
}

/** Documents from before torque and assembly: nobody said how sizes were read, no place but the thrust main has a name, nothing is tightened. */
function withAssembly(document: StoredDocument): StoredDocument {
  const fasteners = recordOf(document.fasteners);
  return {
    places: {},
    torque: BLANK_TIGHTENED,
    assembly: BLANK_ASSEMBLY,
    ...document,
    fasteners: {
      main: { figures: [], ...recordOf(fasteners.main) },
      rod: { figures: [], ...recordOf(fasteners.rod) },
    },
    measuring: { mode: eachFeature(() => null), ...recordOf(document.measuring) },
    format: 'fettle.job/5',
  };
}

/** From each version of the job document to the next, from 0 on: `fettle.job/n` after n of them. */
export const JOB_UPGRADES: readonly UpgradeStep[] = [
  fromUnversioned,
  withEndPlay,
  withTrials,
  withPlaces,
  withAssembly,
];
