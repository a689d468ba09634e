import {
  type HandTurn,
  momentText,
  plainNumber,
  STIFF_TRIES,
  type StationAssembly,
  TORQUE_UNITS,
  type TorqueUnit,
  torqueUnitWord,
  turnText,
} from '@fettle/core';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { AssemblyWork } from './useAssembly.js';

const WAYS: readonly { how: HandTurn['how']; label: string }[] = [
  { how: 'even', label: 'Free and even' },
  { how: 'uneven', label: 'Free, uneven' },
  { how: 'stiff', label: 'Stiff' },
];

function numberOf(text: string, most: number): number | null | 'wrong' {
  const typed = text.trim().replace('°', '');
  if (typed === '') return null;
  const value = plainNumber(typed);
  return value <= most ? value : 'wrong';
}

/** How the shaft turns by hand with this cap tight. */
export function TurnPanel({ work, one }: { work: AssemblyWork; one: StationAssembly }) {
  const { job, turn } = work;
  const { station } = one;
  const known = one.isTurnOpen ? null : one.turn;
  const angle = useKeptText(
    { of: job.id, part: 'turn angle', field: station },
    known?.angle == null ? '' : String(known.angle),
  );
  const away = useKeptText(
    { of: job.id, part: 'turn breakaway', field: station },
    known?.breakaway == null ? '' : String(known.breakaway.value),
  );
  const [unit, setUnit, unitKept] = useKeptChoice<TorqueUnit>(
    { of: job.id, part: 'turn unit', field: station },
    known?.breakaway?.unit ?? (job.document.unit === 'in' ? 'in-lb' : 'Nm'),
    TORQUE_UNITS,
  );
  const [readAngle, readAway] = [numberOf(angle.text, 360), numberOf(away.text, 10_000)];
  const keep = (how: HandTurn['how'], inUnit = unit) => {
    if (readAngle === 'wrong' || readAway === 'wrong') return;
    turn(station, {
      how,
      angle: how === 'stiff' ? readAngle : null,
      breakaway: readAway === null ? null : { value: readAway, unit: inUnit },
    });
    angle.settled(how === 'stiff' ? angle.text : '');
    away.settled(away.text);
    unitKept(inUnit);
  };
  const isStiff = known?.how === 'stiff';
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
            onPress={() => (known?.how === how ? turn(station, null) : keep(how))}
          >
            {label}
          </Button>
        ))}
      </Row>
      {isStiff && (
        <>
          <Row style={{ alignItems: 'end' }}>
            <Field
              label="Stiff at, degrees (blank: all the way round)"
              figure
              value={angle.text}
              onChange={angle.setText}
              isLeftOver={angle.isLeftOver}
              onBlur={() => keep('stiff')}
              fault={readAngle === 'wrong' ? 'Enter degrees from 0 to 360.' : null}
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
              fault={readAway === 'wrong' ? 'Enter a torque, or leave blank.' : null}
            />
            <Choice
              label="Read in"
              value={unit}
              options={TORQUE_UNITS.map((value) => ({ value, label: torqueUnitWord(value) }))}
              onChange={(value) => {
                setUnit(value);
                keep(known.how, value);
              }}
            />
          </Row>
        </Fold>
      )}
    </Panel>
  );
}
