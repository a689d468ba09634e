import { CRUSH_SETTINGS, FAMILY_TABLE, ownSettings } from '@fettle/core';
import { SettingBox } from '../typing/SettingBox.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import type { CrushWork } from './useCrush.js';

/** What is aimed at, at the joints of one family. */
export function AimPanel({ job, work }: { job: string; work: CrushWork }) {
  const { document, crush, place, setAll } = work;
  // Big ends beside mains of white metal, or of white metal themselves, go to the middle of their limits.
  if (
    place === null ||
    (FAMILY_TABLE[place.family].housingsMove && (place.kind === 'saddle' || crush.kind === 'saddle'))
  )
    return null;
  const what = FAMILY_TABLE[place.family].heldBy[1];
  const own = document.materials[what];
  return (
    <Panel>
      <PanelTitle>Target</PanelTitle>
      {ownSettings(CRUSH_SETTINGS, place).map(([key, { field }]) => (
        <SettingBox
          key={key}
          kept={{ of: job, part: 'crush', field: key }}
          field={field}
          unit={document.unit}
          value={crush[key]}
          onCommit={(value) => setAll({ [key]: value })}
        />
      ))}
      {place.kind !== 'saddle' && (
        <Quiet>
          {own === 'unknown' ? `What the ${what} are made of is not on the data sheet.` : `The ${what} are of ${own}.`}{' '}
          Caps of aluminium want more crush than those of iron; the data sheet decides.
        </Quiet>
      )}
    </Panel>
  );
}
