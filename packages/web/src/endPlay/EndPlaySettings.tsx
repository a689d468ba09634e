import { END_PLAY_SETTINGS, type EndPlay, lengthText, ownSettings } from '@fettle/core';
import { useClearances } from '../person/useClearances.js';
import { LengthField } from '../typing/LengthField.js';
import { SettingBox } from '../typing/SettingBox.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import type { EndPlayWork } from './useEndPlay.js';

/** What is fitted now, by what takes the thrust. */
const FITTED: Readonly<Record<string, readonly (readonly [keyof EndPlay['fitted'], string])[]>> = {
  washers: [
    ['front', 'Fitted at the front'],
    ['rear', 'Fitted at the rear'],
  ],
  flanged: [['width', 'Fitted width over the flanges']],
};

/** What takes the thrust, what is fitted now, what is aimed at; and, folded away, what the readings are judged by. */
export function EndPlaySettings({ job, work }: { readonly job: string; readonly work: EndPlayWork }) {
  const { document, endPlay, kind, set, aim } = work;
  const { unit, sheet } = document;
  const { shown } = useClearances(unit);
  const engine = { kind, onSheet: sheet?.thrustKind ?? 'unknown' };
  const own = ownSettings(END_PLAY_SETTINGS, engine);
  const boxes = (place: 'fitted' | 'aim' | 'readings') =>
    own
      .filter(([, { among }]) => among === place)
      .map(([key, { field }]) => (
        <SettingBox
          key={key}
          kept={{ of: job, part: 'endPlay', field: key }}
          field={field}
          unit={unit}
          value={endPlay[key]}
          engine={engine}
          onCommit={(value) => set({ [key]: value })}
        />
      ));
  return (
    <Panel aria-label="Thrust bearing">
      <PanelTitle>Thrust bearing</PanelTitle>
      <FieldPairs>
        {boxes('fitted')}
        {FITTED[kind ?? '']?.map(([face, label]) => (
          <LengthField
            key={face}
            kept={{ of: job, part: 'endPlay', field: face }}
            label={`${label}, ${unit}`}
            unit={unit}
            value={endPlay.fitted[face]}
            check={(nm) => (nm > 0 ? null : 'Enter a thickness above 0.')}
            onCommit={(value) => set({ fitted: { ...endPlay.fitted, [face]: value } })}
          />
        ))}
        {boxes('aim')}
      </FieldPairs>
      {aim !== null && endPlay.aim !== null && endPlay.aim !== aim && (
        <Quiet>The target is outside the limits; mid-limits, {lengthText(aim, shown)}, is used.</Quiet>
      )}
      <Fold>
        <summary>
          Repeats within {lengthText(endPlay.repeatWithin, shown)}, dial ± {lengthText(endPlay.uncertainty, shown)}
          {kind === 'washers' &&
            `, shaft moved ${endPlay.maxShift === null ? 'as far as needed' : `up to ${lengthText(endPlay.maxShift, shown)}`}`}
        </summary>
        <FieldPairs>{boxes('readings')}</FieldPairs>
      </Fold>
    </Panel>
  );
}
