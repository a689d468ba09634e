import { type EndPlay, lengthText, THRUST_KINDS, type ThrustKind } from '@fettle/core';
import { useClearances } from '../person/useClearances.js';
import { LengthField } from '../typing/LengthField.js';
import { Choice } from '../ui/Choice.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import type { EndPlayWork } from './useEndPlay.js';

const KIND_WORDS: Readonly<Record<ThrustKind, string>> = {
  washers: 'Loose thrust washers',
  flanged: 'A flanged shell',
  rings: 'Ring shims at the end of the shaft',
};

const COATINGS = [
  { value: 'unknown', label: 'Not known' },
  { value: 'none', label: 'Not coated' },
  { value: 'coated', label: 'Coated' },
] as const;

const HALVES: readonly { value: string; label: string; halves: EndPlay['halves'] }[] = [
  { value: 'both', label: 'Upper and lower', halves: ['upper', 'lower'] },
  { value: 'upper', label: 'Upper only', halves: ['upper'] },
  { value: 'lower', label: 'Lower only', halves: ['lower'] },
];

/** How far the end play counts where the halves of the thrust main carry the flanges. */
const WEIGHTS: readonly { value: string; label: string; weight: number }[] = [
  { value: 'equal', label: 'ties only', weight: 0 },
  { value: 'little', label: 'a little', weight: 0.01 },
  { value: 'much', label: 'as much', weight: 1 },
];

const COUNTS = [
  { value: '3,2', label: 'Three, or two' },
  { value: '2,3', label: 'Two, or three' },
  { value: '2', label: 'Two' },
  { value: '3', label: 'Three' },
  { value: '4,3,2', label: 'Four, three or two' },
  { value: '2,1', label: 'Two, or one' },
] as const;

/** What takes the thrust, what is fitted now, what is aimed at; and, folded away, what the readings are judged by. */
export function EndPlaySettings({ job, work }: { readonly job: string; readonly work: EndPlayWork }) {
  const { document, endPlay, kind, set, aim } = work;
  const { unit, sheet } = document;
  const { shown } = useClearances(document.unit);
  const given = sheet?.thrustKind ?? 'unknown';
  const length = (
    field: string,
    label: string,
    value: Parameters<typeof LengthField>[0]['value'],
    onCommit: Parameters<typeof LengthField>[0]['onCommit'],
    more: { optional?: boolean; isSize?: boolean } = {},
  ) => (
    <LengthField
      kept={{ of: job, part: 'endPlay', field }}
      label={`${label}, ${unit}`}
      unit={unit}
      value={value}
      optional={more.optional ?? true}
      check={(nm) => (nm < 0 || (more.isSize && nm === 0) ? 'Enter a thickness above 0.' : null)}
      onCommit={onCommit}
    />
  );
  const fitted = (face: keyof EndPlay['fitted'], label: string) =>
    length(face, label, endPlay.fitted[face], (value) => set({ fitted: { ...endPlay.fitted, [face]: value } }), {
      isSize: true,
    });
  return (
    <Panel aria-label="Thrust bearing">
      <PanelTitle>Thrust bearing</PanelTitle>
      <FieldPairs>
        <Choice
          label="Thrust taken by"
          value={endPlay.kind ?? 'sheet'}
          options={[
            {
              value: 'sheet',
              label: given === 'unknown' ? 'Not set' : `${KIND_WORDS[given]} (data sheet)`,
            },
            ...THRUST_KINDS.map((value) => ({ value, label: KIND_WORDS[value] })),
          ]}
          onChange={(value) => set({ kind: value === 'sheet' ? null : value })}
        />
        {kind === 'rings' ? (
          <Choice
            label="Rings, best first"
            value={endPlay.counts.join()}
            options={COUNTS}
            onChange={(value) => set({ counts: value.split(',').map(Number) })}
          />
        ) : (
          <Choice
            label={kind === 'flanged' ? 'Flanged shells' : 'Washers at each face'}
            value={HALVES.find(({ halves }) => halves.join() === endPlay.halves.join())?.value ?? 'both'}
            options={HALVES}
            onChange={(value) => set({ halves: HALVES.find((one) => one.value === value)!.halves })}
          />
        )}
        {kind === 'washers' && (
          <>
            {fitted('front', 'Fitted at the front')}
            {fitted('rear', 'Fitted at the rear')}
          </>
        )}
        {kind === 'flanged' && fitted('width', 'Fitted width over the flanges')}
        {kind === 'flanged' && (
          <Choice
            label="Weight in shell selection"
            value={WEIGHTS.find(({ weight }) => weight === endPlay.weight)?.value ?? 'own'}
            options={WEIGHTS}
            onChange={(value) => set({ weight: WEIGHTS.find((one) => one.value === value)!.weight })}
          />
        )}
        {kind === 'rings' &&
          length(
            'settle',
            'Settles at the final torque',
            endPlay.settle,
            (value) => value !== null && set({ settle: value }),
            {
              optional: false,
            },
          )}
        {length('aim', 'Target (blank: mid-limits)', endPlay.aim, (value) => set({ aim: value }))}
        {(kind === 'washers' || kind === 'flanged') && (
          <Choice
            label="Faces of the fitted washers"
            value={endPlay.coating}
            options={COATINGS}
            onChange={(coating) => set({ coating })}
          />
        )}
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
        <FieldPairs>
          {length(
            'repeatWithin',
            'Repeats may differ by',
            endPlay.repeatWithin,
            (value) => value !== null && set({ repeatWithin: value }),
            { optional: false },
          )}
          {length(
            'uncertainty',
            'Standard uncertainty of a reading',
            endPlay.uncertainty,
            (value) => value !== null && set({ uncertainty: value }),
            { optional: false },
          )}
          {kind === 'washers' &&
            length('maxShift', 'Maximum shift of the shaft (blank: any)', endPlay.maxShift, (value) =>
              set({ maxShift: value }),
            )}
          {kind !== 'rings' &&
            length(
              'alikeWithin',
              'Washers of a face alike within',
              endPlay.alikeWithin,
              (value) => value !== null && set({ alikeWithin: value }),
              { optional: false },
            )}
        </FieldPairs>
      </Fold>
    </Panel>
  );
}
