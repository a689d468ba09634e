import { type HandTurn, plainNumber, type StationAssembly, TORQUE_UNITS, type TorqueUnit } from '@fettle/core';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { AssemblyWork } from './useAssembly.js';

function numberOf(text: string, most: number): number | null | 'wrong' {
  const typed = text.trim().replace('°', '');
  if (typed === '') return null;
  const value = plainNumber(typed);
  return value <= most ? value : 'wrong';
}

/** How the shaft turns with one cap tight, while it is typed: free or stiff, at which angle, and the breakaway torque. */
export function useTurn({ job, turn }: AssemblyWork, { station, isTurnOpen, turn: stored }: StationAssembly) {
  const known = isTurnOpen ? null : stored;
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
  return {
    /** How it turned; null where it has to be turned, or turned again. */
    known,
    angle,
    angleFault: readAngle === 'wrong' ? 'Enter degrees from 0 to 360.' : null,
    away,
    awayFault: readAway === 'wrong' ? 'Enter a torque, or leave blank.' : null,
    unit,
    setUnit: (next: TorqueUnit) => {
      setUnit(next);
      if (known) keep(known.how, next);
    },
    keep,
    /** Takes a way of turning; the one that stands is withdrawn. */
    press: (how: HandTurn['how']) => (known?.how === how ? turn(station, null) : keep(how)),
  };
}
