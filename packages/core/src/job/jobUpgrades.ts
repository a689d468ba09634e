import { storedRecord } from '../document/documentPart.js';
import type { StoredDocument, UpgradeStep } from '../document/versioned.js';
import { eachFeature } from '../part/feature.js';
import { partsInVersion } from './jobParts.js';

/**
 * Documents from before there were versions: the earliest know no rods, no codes, no workshop drawer and no data sheet. What they
 * leave out is what it was then, so that nothing is assumed that the fitter has not seen.
 */
function fromUnversioned(document: StoredDocument): StoredDocument {
  const measuring = storedRecord(document.measuring);
  const rules = storedRecord(document.rules);
  const shells = Object.entries(storedRecord(document.shells)).map(([id, half]) => [
    id,
    { family: 'main', line: null, ...storedRecord(half) },
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
      slots: { bigEnd: ['front', 'rear'], pin: ['front-0', 'front-90'], ...storedRecord(measuring.slots) },
      setting: { bigEnd: null, pin: null, ...storedRecord(measuring.setting) },
    },
    rules: { rodAim: { kind: 'middle' }, maxRodSpread: null, ...rules },
    shells: Object.fromEntries(shells),
  };
}

/** What a version brought that is of no piece of the work: members that are there from then on, under what is stored, and members that grew. */
type Own = (document: StoredDocument) => { readonly added?: StoredDocument; readonly grown?: StoredDocument };

/** The step to a version: what its parts brought, and what it brought beside them. */
function stepTo(version: number, own: Own = () => ({})): UpgradeStep {
  return (document) => {
    const { added = {}, grown = {} } = own(document);
    return { ...added, ...partsInVersion(document, version), ...grown, format: `fettle.job/${version}` };
  };
}

/** From each version of the job document to the next, from 0 on: `fettle.job/n` after n of them. */
export const JOB_UPGRADES: readonly UpgradeStep[] = [
  fromUnversioned,
  // End play and crush, and the washers and shims for them.
  stepTo(2, () => ({ added: { pieces: {} } })),
  // Trials, with a required chance, and temperatures of what is measured.
  stepTo(3, ({ rules, measuring }) => ({
    grown: {
      rules: { leastChance: null, ...storedRecord(rules) },
      measuring: { celsius: eachFeature(() => null), gaugeCelsius: null, ...storedRecord(measuring) },
    },
  })),
  // Limits by place: until then the sheet's limits hold for every main, and nothing is known of printing.
  stepTo(4, () => ({ added: { mainLimits: {}, printed: null } })),
  // Torque and assembly, positions with shells of their own, and how sizes are read.
  stepTo(5, ({ measuring }) => ({
    added: { places: {} },
    grown: { measuring: { mode: eachFeature(() => null), ...storedRecord(measuring) } },
  })),
];
