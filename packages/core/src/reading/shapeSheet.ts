import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { FEATURE_TABLE, type Feature } from '../part/feature.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { MeasuringFacts } from './measuringFacts.js';

/**
 * What the sheet says of the shape of the parts of a feature: out-of-round, taper, barrel (below zero an hourglass) and where the largest diameter of
 * an oval is; nothing where parts were read in no more than two planes and two directions, whose readings stand side by side and say it themselves.
 */
export function shapeBlocks({ job, parts }: MeasuringFacts, feature: Feature): SheetBlock[] {
  const length = (value: Nanometres | null) => (value === null ? '' : lengthText(value, job.unit));
  const rows = parts[feature].flatMap(({ name, shape }) => {
    const { outOfRound, taper, barrel, oval } = shape;
    if (barrel === null && oval === null) return [];
    const cells = [
      name,
      length(outOfRound),
      length(taper),
      length(barrel),
      oval === null || oval.swing === 0 ? '' : `${length(oval.swing)}, largest at ${Math.round(oval.at)}°`,
    ];
    return [{ key: name, cells: cells.map((text) => ({ text })) }];
  });
  if (rows.length === 0) return [];
  return [
    {
      kind: 'table',
      key: `shape ${feature}`,
      part: 'readings',
      title: `Shape: ${FEATURE_TABLE[feature].name.toLowerCase()}s`,
      head: [words('Part'), figures('Out-of-round'), figures('Taper'), figures('Barrel'), words('Oval')],
      rows,
    },
  ];
}
