import { storedRecord } from '../document/documentPart.js';
import type { StoredDocument, UpgradeStep } from '../document/versioned.js';
import { partsInVersion } from './jobParts.js';
import { PARTS } from './stages.js';

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

/** The step to a version: what the parts of the document brought with it. */
function stepTo(version: number): UpgradeStep {
  return (document) => ({ ...partsInVersion(document, version), format: `fettle.job/${version}` });
}

/** The version that jobs are written in: the last one that brought a part, or changed one. */
export const JOB_VERSION = Math.max(
  ...PARTS.flatMap(({ since, upgrades = {} }) => [since, ...Object.keys(upgrades).map(Number)]),
);

/** From each version of the job document to the next, from 0 on: `fettle.job/n` after n of them. */
export const JOB_UPGRADES: readonly UpgradeStep[] = [
  fromUnversioned,
  ...Array.from({ length: JOB_VERSION - 1 }, (_, at) => stepTo(at + 2)),
];
