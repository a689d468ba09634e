import { FAMILY_TABLE } from '@fettle/core';
import { LengthField } from '../typing/LengthField.js';
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
      <LengthField
        kept={{ of: job, part: 'crush', field: 'aim' }}
        label={`Target at every joint (blank: mid-limits), ${document.unit}`}
        unit={document.unit}
        value={crush.aim}
        onCommit={(aim) => setAll({ aim })}
      />
      {place.kind !== 'saddle' && (
        <LengthField
          kept={{ of: job, part: 'crush', field: 'aimAluminium' }}
          label={`Target under aluminium caps (blank: the same), ${document.unit}`}
          unit={document.unit}
          value={crush.aimAluminium}
          onCommit={(aimAluminium) => setAll({ aimAluminium })}
        />
      )}
      {place.kind !== 'saddle' && (
        <Quiet>
          {own === 'unknown' ? `What the ${what} are made of is not on the data sheet.` : `The ${what} are of ${own}.`}{' '}
          Caps of aluminium want more crush than those of iron; the data sheet decides.
        </Quiet>
      )}
    </Panel>
  );
}
