import {
  type AcceptedChoice,
  FAMILY_TABLE,
  type JobDocument,
  type JobFit,
  mayTakePin,
  type Placement,
  partName,
  rodCount,
  rodLabel,
} from '@fettle/core';
import { Pin, PinOff } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { useDrag, useDrop } from 'react-aria';
import styled from 'styled-components';
import { type MoreOff, moreOff } from '../fit/meanOff.js';
import { useAsked } from '../fit/useAsked.js';
import { useClearances } from '../person/useClearances.js';
import { useWidth } from '../shaft/useWidth.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import type { Play } from './usePlay.js';

const LINES = 92;

const Board = styled.div`
  display: grid;
  gap: 0;
  .slots { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); }
  .place {
    margin: 0 0.2rem; min-height: 48px; padding: 0.2rem; border: 2px solid var(--line-strong); border-radius: var(--radius);
    background: var(--surface); color: var(--ink); font: inherit; text-align: center; line-height: 1.15; font-weight: 700;
    small { display: block; font-weight: 400; font-size: 0.8125rem; color: var(--ink-soft); }
  }
  .rod { cursor: grab; touch-action: none; }
  .rod[aria-pressed='true'] { border-color: var(--accent); background: var(--accent-soft); }
  .pin { background: var(--sunken); }
  .pin.target { border-color: var(--accent); border-style: dashed; }
  svg { display: block; width: 100%; }
  .can { stroke: var(--line-strong); stroke-width: 1.2; stroke-dasharray: 4 4; }
  .lit { stroke: var(--accent); stroke-width: 2; }
  .planned { stroke: var(--ink); stroke-width: 3.5; }
  .kept { stroke: var(--accent); stroke-width: 6; }
`;

const Reasons = styled.ul`
  list-style: none;
  padding: 0;
  margin: 0.25rem 0 0;
  li { display: grid; grid-template-columns: 3rem 6.5rem minmax(0, 1fr) auto; gap: 0.5rem; align-items: center; padding: 0.2rem 0; border-top: var(--rule) solid var(--line); font-size: var(--size-small); }
`;

interface RodMatchingProps {
  readonly document: JobDocument;
  readonly asked: JobFit & { ok: true };
  readonly halves: AcceptedChoice['stations'];
  /** How far the stations of the best selection are off target on average, nm; null without one. */
  readonly meanOff: number | null;
  readonly play: Play;
}

function RodSlot({
  label,
  number,
  isOpen,
  isKept,
  onOpen,
}: {
  label: string;
  number: number;
  isOpen: boolean;
  isKept: boolean;
  onOpen: () => void;
}) {
  const { dragProps, dragButtonProps, isDragging } = useDrag({
    hasDragButton: false,
    getItems: () => [{ 'text/plain': `R${number}`, 'application/x-fettle-rod': String(number) }],
  });
  return (
    <button
      type="button"
      className="place rod"
      {...dragProps}
      aria-describedby={dragButtonProps['aria-describedby']}
      aria-pressed={isOpen}
      style={{ opacity: isDragging ? 0.5 : 1 }}
      onClick={onOpen}
    >
      {label}
      {isKept && <small> locked</small>}
    </button>
  );
}

function PinSlot({ number, shells, onRod }: { number: number; shells: string; onRod: (rod: number) => void }) {
  const ref = useRef<HTMLDivElement>(null);
  const { dropProps, isDropTarget } = useDrop({
    ref,
    onDrop: async ({ items }) => {
      const item = items.find((one) => one.kind === 'text' && one.types.has('application/x-fettle-rod'));
      if (item?.kind === 'text') onRod(Number(await item.getText('application/x-fettle-rod')));
    },
  });
  return (
    // biome-ignore lint/a11y/useSemanticElements: a place to drop on, which React Aria makes reachable by keyboard while dragging
    <div
      {...dropProps}
      ref={ref}
      role="button"
      tabIndex={0}
      className={isDropTarget ? 'place pin target' : 'place pin'}
    >
      P{number}
      <small>{shells}</small>
    </div>
  );
}

function furtherText(more: MoreOff | null): string {
  return more === null ? 'no change' : `${more.text} ${more.isFurther ? 'further off' : 'nearer'} target on average`;
}

/** Where rods can go, as the search has found, and where they are planned. */
interface Matching {
  /** Rods and pins by number, from 1. */
  readonly numbers: readonly number[];
  /** What each rod on each pin gives; undefined while that is worked out. */
  readonly placements: readonly RodPlacement[] | undefined;
  readonly fault: string | null;
  /** The pin that a rod is locked to; null for none. */
  readonly keptPin: (rod: number) => number | null;
  /** The rod that is planned on a pin; null for none. */
  readonly plannedRod: (pin: number) => number | null;
}

interface RodPlacement extends Placement {
  readonly rod: number | null;
  readonly pin: number | null;
}

function useMatching({ document, asked, halves }: RodMatchingProps): Matching {
  const count = rodCount(document.layout);
  const free = useMemo(
    () => ({
      ...asked.problem,
      housings: asked.problem.housings.map((one) =>
        FAMILY_TABLE[one.family].housingsMove ? { ...one, station: null } : one,
      ),
    }),
    [asked],
  );
  const { result, fault } = useAsked(free, (search) => search.placements(free));
  const pins = new Map(Array.from({ length: count }, (_, at) => [partName('pin', at + 1), at + 1]));
  return {
    numbers: Array.from({ length: count }, (_, at) => at + 1),
    placements: result?.map((one) => ({
      ...one,
      rod: asked.rodNumbers.get(one.housing) ?? null,
      pin: pins.get(one.station) ?? null,
    })),
    fault,
    keptPin: (rod) => document.rods[String(rod)]?.pin ?? null,
    plannedRod: (pin) => halves[partName('pin', pin)]?.rod ?? null,
  };
}

/** The grades that are selected at a pin. */
function gradesAt({ document, halves }: RodMatchingProps, pin: number): string {
  const chosen = halves[partName('pin', pin)];
  if (!chosen) return 'nothing selected';
  const [upper, lower] = [chosen.upper, chosen.lower].map(({ shell, label }) => document.shells[shell]?.grade ?? label);
  return upper === lower ? upper! : `${upper} / ${lower}`;
}

/** The lines between rods and pins: what could be, and over it what is planned. */
function Lines({ matching, open }: { matching: Matching; open: number | null }) {
  const [frame, width] = useWidth();
  const { numbers, placements, keptPin, plannedRod } = matching;
  const x = (number: number) => ((number - 0.5) * width) / numbers.length;
  const line = (key: string, className: string, rod: number, pin: number) => (
    <line key={key} className={className} x1={x(rod)} x2={x(pin)} y1={2} y2={LINES - 2} />
  );
  return (
    <div ref={frame}>
      <svg viewBox={`0 0 ${Math.max(width, 200)} ${LINES}`} height={LINES} aria-hidden>
        {placements?.map(({ housing, station, rod, pin, cost }) =>
          cost === null || rod === null || pin === null
            ? null
            : line(`${housing} ${station}`, open === rod ? 'lit' : 'can', rod, pin),
        )}
        {numbers.map((pin) => {
          const rod = plannedRod(pin);
          return rod === null ? null : line(String(pin), keptPin(rod) === pin ? 'kept' : 'planned', rod, pin);
        })}
      </svg>
    </div>
  );
}

/** Every pin for one rod: whether it can go there, why not, and locking it there. */
function PinsOfRod({ rod, matching, props }: { rod: number; matching: Matching; props: RodMatchingProps }) {
  const { document, meanOff, play } = props;
  const { numbers, placements, keptPin, plannedRod } = matching;
  const { shown } = useClearances(document.unit);
  const reason = (pin: number, placement: RodPlacement | undefined) => {
    if (!mayTakePin(document, rod, pin)) return `R${rod} belongs to the other bank`;
    if (!placement) return 'not in the selection';
    if (placement.reason !== null) return placement.reason;
    if (placement.meanOff === null || meanOff === null) return '';
    return furtherText(moreOff(placement.meanOff, meanOff, shown));
  };
  return (
    <Reasons aria-label={`Where R${rod} can go`}>
      {numbers.map((pin) => {
        const placement = placements?.find((one) => one.rod === rod && one.pin === pin);
        const isKept = keptPin(rod) === pin;
        const can = placement?.cost == null ? 'cannot be' : 'could be';
        return (
          <li key={pin}>
            <strong>P{pin}</strong>
            <span>{plannedRod(pin) === rod ? 'planned' : can}</span>
            <span>{reason(pin, placement)}</span>
            <Button
              aria-label={isKept ? `Unlock R${rod}` : `Lock R${rod} on P${pin}`}
              onPress={() => play.lockRod(rod, isKept ? null : pin)}
            >
              {isKept ? <PinOff aria-hidden size={18} /> : <Pin aria-hidden size={18} />}
              {isKept ? 'Unlock' : 'Lock'}
            </Button>
          </li>
        );
      })}
    </Reasons>
  );
}

/** Rods above, pins below, and the lines between them: what is planned, what could be, and why the rest cannot. */
export function RodMatching(props: RodMatchingProps) {
  const { document, play } = props;
  const [open, setOpen] = useState<number | null>(null);
  const matching = useMatching(props);
  const { numbers, placements, fault, keptPin } = matching;
  return (
    <Panel aria-label="Rods on pins">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Rods on pins</PanelTitle>
        <Quiet>
          Drag a rod to a pin to lock it (Enter picks up). Select it to see all pins.{' '}
          {placements?.every(({ isKnown }) => isKnown) && (
            <>
              <strong>{placements.filter((one) => one.cost !== null).length}</strong> of {placements.length} placements
              work.
            </>
          )}
        </Quiet>
      </Row>
      {fault && <p role="alert">{fault}</p>}
      <Board>
        <div className="slots">
          {numbers.map((number) => (
            <RodSlot
              key={number}
              number={number}
              label={rodLabel(document, number)}
              isOpen={open === number}
              isKept={keptPin(number) !== null}
              onOpen={() => setOpen(open === number ? null : number)}
            />
          ))}
        </div>
        <Lines matching={matching} open={open} />
        <div className="slots">
          {numbers.map((number) => (
            <PinSlot
              key={number}
              number={number}
              shells={gradesAt(props, number)}
              onRod={(rod) => play.lockRod(rod, number)}
            />
          ))}
        </div>
      </Board>
      {open !== null && <PinsOfRod rod={open} matching={matching} props={props} />}
    </Panel>
  );
}
