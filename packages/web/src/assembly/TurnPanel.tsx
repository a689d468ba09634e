import {
  type HandTurn,
  momentText,
  STIFF_TRIES,
  type StationAssembly,
  TORQUE_UNITS,
  torqueUnitWord,
  turnText,
} from '@fettle/core';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import type { AssemblyWork } from './useAssembly.js';
import { useTurn } from './useTurn.js';

const WAYS: readonly { how: HandTurn['how']; label: string }[] = [
  { how: 'even', label: 'Free and even' },
  { how: 'uneven', label: 'Free, uneven' },
  { how: 'stiff', label: 'Stiff' },
];

/** How the shaft turns by hand with this cap tight. */
export function TurnPanel({ work, one }: { work: AssemblyWork; one: StationAssembly }) {
  const { station } = one;
  const { known, angle, angleFault, away, awayFault, unit, setUnit, keep, press } = useTurn(work, one);
  return (
    <Panel aria-label={`How the shaft turns with ${station} tight`}>
      <PanelTitle>Turn the shaft with {station} tight</PanelTitle>
      <Quiet>
        {one.turn === null
          ? 'By hand, a whole turn. Keep fingers clear of caps and rods.'
          : `${turnText(one.turn)}; ${one.turn.by}, ${momentText(one.turn.at)}${one.isTurnOpen ? '. Parts swapped since: turn it again.' : ''}`}
      </Quiet>
      <Row style={{ marginTop: '0.4rem' }}>
        {WAYS.map(({ how, label }) => (
          <Button
            key={how}
            $kind={known?.how === how ? 'primary' : 'plain'}
            aria-pressed={known?.how === how}
            onPress={() => press(how)}
          >
            {label}
          </Button>
        ))}
      </Row>
      {known?.how === 'stiff' && (
        <>
          <Row style={{ alignItems: 'end' }}>
            <Field
              label="Stiff at, degrees (blank: all the way round)"
              figure
              value={angle.text}
              onChange={angle.setText}
              isLeftOver={angle.isLeftOver}
              onBlur={() => keep('stiff')}
              fault={angleFault}
            />
          </Row>
          <Notice>
            <strong>Try, in this order:</strong>
            <ol style={{ paddingLeft: '1.3rem', listStyle: 'decimal' }}>
              {STIFF_TRIES.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          </Notice>
        </>
      )}
      {known && (
        <Fold open={known.breakaway !== null}>
          <summary>Breakaway torque, if measured</summary>
          <Row style={{ alignItems: 'end' }}>
            <Field
              label={`${station} breakaway torque`}
              figure
              value={away.text}
              onChange={away.setText}
              isLeftOver={away.isLeftOver}
              onBlur={() => keep(known.how)}
              fault={awayFault}
            />
            <Choice
              label="Read in"
              value={unit}
              options={TORQUE_UNITS.map((value) => ({ value, label: torqueUnitWord(value) }))}
              onChange={setUnit}
            />
          </Row>
        </Fold>
      )}
    </Panel>
  );
}
