import {
  FAMILY_TABLE,
  type Family,
  type Fasteners,
  FEATURE_TABLE,
  featureOf,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  momentText,
  type Nanometres,
  type Unit,
} from '@fettle/core';
import { WordsField } from '../typing/WordsField.js';
import { Choice } from '../ui/Choice.js';
import { FieldPairs } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import type { TrialWork } from './useTrial.js';

const KINDS: readonly { value: Fasteners['kind']; label: string }[] = [
  { value: 'unknown', label: 'Unknown' },
  { value: 'maker', label: 'The engine maker’s' },
  { value: 'other', label: 'Other maker' },
];

/** By how much changes of fasteners have moved bores in this workshop. */
function Moves({ family, unit }: { readonly family: Family; readonly unit: Unit }) {
  const { data } = api.useFastenerMovesQuery({});
  const own = data?.moves.filter((move) => move.family === family) ?? [];
  if (own.length === 0) return null;
  const signed = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit], { plus: true });
  return (
    <ul
      aria-label={`What changes of fasteners have done to ${FEATURE_TABLE[featureOf(family, 'housing')].stageName.toLowerCase()} here`}
    >
      {own.map(({ engine, fasteners, since, bores, mean, most }) => (
        <li key={`${engine} ${since}`}>
          {engine}, {fasteners || 'other fasteners'} since {momentText(since, 'day')}:{' '}
          <strong className="figure">{signed(mean)}</strong> on average of {bores}, at most{' '}
          <span className="figure">{lengthText(most, unit)}</span>.
        </li>
      ))}
    </ul>
  );
}

/** What holds the housings of a family: other fasteners, another lubricant or torque move their bores. */
export function FastenersPanel({
  job,
  family,
  work,
}: {
  readonly job: string;
  readonly family: Family;
  readonly work: TrialWork;
}) {
  const { document, setFasteners } = work;
  const held = document.fasteners[family];
  const of = FAMILY_TABLE[family].words;
  const words = (field: 'name' | 'lubricant' | 'torque', label: string) => (
    <WordsField
      job={job}
      part={`fasteners ${family}`}
      field={field}
      label={label}
      value={held[field]}
      onCommit={(text) => setFasteners(family, { [field]: text })}
    />
  );
  return (
    <Panel aria-label={`Fasteners of the ${of}`}>
      <PanelTitle>Fasteners of the {of}</PanelTitle>
      <FieldPairs>
        <Choice label="Maker" value={held.kind} options={KINDS} onChange={(kind) => setFasteners(family, { kind })} />
        {words('name', 'Name')}
        {words('lubricant', 'Lubricant')}
        {words('torque', 'Torque')}
      </FieldPairs>
      <Moves family={family} unit={document.unit} />
      <Quiet>
        A change moves the bores: re-measure them and repeat their trials. The engine maker’s figures decide.
      </Quiet>
    </Panel>
  );
}
