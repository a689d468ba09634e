import {
  CLEARANCE_DECIMALS,
  type EffectiveSize,
  formatExactLength,
  type JobDocument,
  type Nanometres,
  type ShownUnit,
  type Unit,
  workedOutText,
} from '@fettle/core';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';

export const GAUGE_HEIGHT = 152;

export const VerdictButton = styled(AriaButton)`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.1rem;
  min-height: 48px;
  width: 100%;
  border: var(--rule) solid transparent;
  border-radius: var(--radius);
  background: transparent;
  color: var(--ink);
  font: inherit;
  font-size: var(--size-small);
  font-weight: 700;
  line-height: 1.1;
  cursor: pointer;
  &[data-hovered] { border-color: var(--line-strong); }
`;

export const Big = styled.strong`
  font-size: clamp(0.9375rem, 20cqi, 1.3rem);
  line-height: 1.15;
`;

/** Fits seven figures into a narrow column. */
const Size = styled.span`
  font-size: clamp(0.75rem, 21cqi, 1rem);
`;

export const Grade = styled.span`
  font-weight: 600;
  font-size: var(--size-small);
  line-height: 1.15;
  overflow-wrap: anywhere;
  small { display: block; font-family: var(--figures); font-weight: 400; font-size: 0.8125rem; color: var(--ink-soft); }
`;

/** Keeps the line of what the search has yet to find: nothing moves when it does. */
export const TO_COME = '\u00a0';

/** A size as it was read, or the mark that stands for it while nothing is. */
export function SizeOrMark({
  size,
  mark,
  text,
  unit,
}: {
  size: EffectiveSize | null;
  mark: string | null;
  text: (value: Nanometres | undefined) => string;
  unit: Unit;
}) {
  if (size?.kind !== 'marked') return <Size className="figure">{text(size?.nominal)}</Size>;
  return (
    <Grade>
      mark {mark}
      <small>±{workedOutText((size.largest - size.smallest) / 2, unit)}</small>
    </Grade>
  );
}

export const Chips = styled.span`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 0.15rem;
  span {
    display: inline-flex; align-items: center; gap: 0.15rem; padding: 0 0.3rem; border: var(--rule) solid var(--line-strong);
    border-radius: 1rem; font-size: 0.8125rem; font-weight: 600; line-height: 1.3; overflow-wrap: anywhere;
  }
`;

/** What the fitter holds or forbids at a station, and what it is aimed beside, a word or two each. */
export function heldAt(
  { wishes, rods, rules, shells }: JobDocument,
  unit: ShownUnit,
  id: string,
  rod: number | null,
): string[] {
  const grade = (shell: string) => shells[shell]?.grade ?? shell;
  const wish = wishes[id];
  const extra = rules.extras[id];
  const held = wish ? [wish.upper, wish.lower] : [];
  const names = [...new Set(held.flatMap((shell) => (shell === null ? [] : [grade(shell)])))];
  return [
    ...names,
    ...(wish?.noShells ?? []).map((shell) => `not ${grade(shell)}`),
    ...(wish?.unmixed ? ['no mixed pair'] : []),
    ...(rod !== null && rods[String(rod)]?.pin != null ? ['rod locked'] : []),
    ...(extra ? [`target ${formatExactLength(extra, unit, CLEARANCE_DECIMALS[unit], { plus: true })}`] : []),
  ];
}
