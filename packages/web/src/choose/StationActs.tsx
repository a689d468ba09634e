import { type AcceptedChoice, FAMILY_TABLE, type JobDocument, type JobStation, rodCount, rodLabel } from '@fettle/core';
import { Ban, Pin, PinOff } from 'lucide-react';
import styled from 'styled-components';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import type { Play } from './usePlay.js';

const Acts = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  margin: 0.5rem 0;
  button { padding: 0 0.6rem; font-size: var(--size-small); }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(8rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
`;

/** A half by its side, or as what it is where it fits both. */
function sideWord(half: 'upper' | 'lower' | 'either' | undefined): string {
  return half === undefined || half === 'either' ? 'shell' : half;
}

interface StationActsProps {
  /** Id of the engine. */
  readonly job: string;
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly play: Play;
}

/** What can be held, forbidden and aimed at in one station. */
export function StationActs({ job, document, station, halves, play }: StationActsProps) {
  const { unit } = document;
  const isRod = FAMILY_TABLE[station.family].housingsMove;
  const wish = play.wishAt(station.id);
  const isHeld = wish.upper !== null || wish.lower !== null;
  const keptRod = Object.entries(document.rods).find(([, rod]) => rod.pin === station.number)?.[0] ?? '';
  const label = (id: string) => document.shells[id]?.grade ?? id;
  return (
    <>
      <Acts>
        {halves && (
          <Button
            aria-label={isHeld ? 'Unlock' : 'Lock this pair'}
            aria-pressed={isHeld}
            onPress={() =>
              play.wish(
                station.id,
                isHeld ? { upper: null, lower: null } : { upper: halves.upper.shell, lower: halves.lower.shell },
                isHeld ? `${station.id} unlocked` : `${station.id} locked`,
              )
            }
          >
            {isHeld ? <PinOff aria-hidden size={18} /> : <Pin aria-hidden size={18} />}
            {isHeld ? 'Unlock' : 'Lock'}
          </Button>
        )}
        <Button
          aria-pressed={wish.unmixed}
          onPress={() =>
            play.wish(
              station.id,
              { unmixed: !wish.unmixed },
              wish.unmixed ? `${station.id}: mixed pair allowed` : `${station.id} not mixed`,
            )
          }
        >
          {wish.unmixed ? 'Allow mixed pair' : 'No mixed pair'}
        </Button>
        {halves &&
          [...new Set([halves.upper.shell, halves.lower.shell])].map((id) => (
            <Button
              key={id}
              aria-label={`Rule out this ${sideWord(document.shells[id]?.half)}: ${label(id)}`}
              onPress={() =>
                play.wish(
                  station.id,
                  { noShells: [...new Set([...wish.noShells, id])] },
                  `${label(id)} ruled out at ${station.id}`,
                )
              }
            >
              <Ban aria-hidden size={18} />
              Rule out this {sideWord(document.shells[id]?.half)}
            </Button>
          ))}
        {wish.noShells.length > 0 && (
          <Button onPress={() => play.wish(station.id, { noShells: [] }, `${station.id} allows all again`)}>
            Allow {wish.noShells.map(label).join(', ')} again
          </Button>
        )}
      </Acts>
      <Pair>
        {isRod && (
          <Choice
            label={`Rod locked on ${station.id}`}
            value={keptRod}
            options={[
              { value: '', label: 'best available' },
              ...Array.from({ length: rodCount(document.layout) }, (_, at) => ({
                value: String(at + 1),
                label: rodLabel(document, at + 1),
              })),
            ]}
            onChange={(rod) =>
              rod === '' ? play.lockRod(Number(keptRod), null) : play.lockRod(Number(rod), station.number)
            }
          />
        )}
        <LengthField
          kept={{ of: job, part: station.id, field: 'extra' }}
          label={`Added to target, ${unit}`}
          unit={unit}
          value={document.rules.extras[station.id] ?? null}
          onCommit={(extra) => play.setExtra(station.id, extra)}
        />
      </Pair>
    </>
  );
}
