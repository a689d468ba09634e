import { INSTRUMENT_DECIMALS, type PieceAsk, type ShimPlan, type Unit } from '@fettle/core';
import styled from 'styled-components';
import { Choice } from '../ui/Choice.js';
import { Table } from '../ui/Panel.js';
import { placeName } from './pieceWords.js';

const Places = styled(Table)`
  td { padding: 0.2rem 0.4rem; }
  td.place { font-weight: 600; white-space: nowrap; }
  td.piece { width: 100%; max-width: 0; }
`;

export type Chosen = ShimPlan['chosen'];
/** One piece in one place: a stack is told ring by ring. */
export type OnePlace = { readonly place: Chosen[number]['place']; readonly id: string };

/** A choice, piece by piece. */
export function placesOf(chosen: Chosen): OnePlace[] {
  return chosen.flatMap(({ place, id, count }) => Array.from({ length: count }, () => ({ place, id })));
}

/** The same as a plan tells it: the rings of a kind together. */
export function chosenOf(places: readonly OnePlace[]): Chosen {
  const chosen: Chosen = [];
  for (const { place, id } of places) {
    const same = place === 'stack' ? chosen.find((one) => one.id === id) : undefined;
    if (same) same.count += 1;
    else chosen.push({ place, id, count: 1 });
  }
  return chosen;
}

interface PieceRowsProps {
  readonly asked: PieceAsk & { ok: true };
  readonly chosen: Chosen;
  readonly unit: Unit;
  readonly onChange: (chosen: Chosen) => void;
}

/** True if a piece is made for a place. */
function fits(piece: object & { readonly half?: string; readonly face?: string }, place: string): boolean {
  const [face, half] = place.includes('.') ? place.split('.') : [undefined, place];
  const isSide = half === 'upper' || half === 'lower';
  return (
    (!isSide || piece.half === undefined || piece.half === half || piece.half === 'either') &&
    (face === undefined || piece.face === undefined || piece.face === face)
  );
}

/** A choice place by place; each piece can be swapped for another one that fits there. */
export function PieceRows({ asked, chosen, unit, onChange }: PieceRowsProps) {
  const places = placesOf(chosen);
  const figure = (id: string) => {
    const { thickness } = asked.request.pieces.find((piece) => piece.id === id)!;
    return thickness.toFixed(INSTRUMENT_DECIMALS[unit]);
  };
  return (
    <Places aria-label="Selected washers and shims">
      <thead>
        <tr>
          <th>Position</th>
          <th>Washer or shim</th>
          <th className="number">Thickness, {unit}</th>
        </tr>
      </thead>
      <tbody>
        {places.map(({ place, id }, at) => {
          const name = place === 'stack' ? `Ring ${at + 1}` : placeName(place);
          const options = asked.request.pieces
            .filter((piece) => piece.id === id || fits(piece as Parameters<typeof fits>[0], place))
            .map((piece) => ({ value: piece.id, label: `${piece.id} · ${figure(piece.id)}` }));
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a place in a stack is told by its number
            <tr key={`${place} ${at}`} data-place={place}>
              <td className="place">{name}</td>
              <td className="piece">
                <Choice
                  label={`Washer or shim at ${name}`}
                  isLabelHidden
                  value={id}
                  options={options}
                  onChange={(next) =>
                    onChange(chosenOf(places.map((one, other) => (other === at ? { ...one, id: next } : one))))
                  }
                />
              </td>
              <td className="number">{figure(id)}</td>
            </tr>
          );
        })}
      </tbody>
    </Places>
  );
}
