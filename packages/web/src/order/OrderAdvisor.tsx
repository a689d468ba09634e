import type { Unit } from '@fettle/core';
import { Search, Square } from 'lucide-react';
import styled from 'styled-components';
import { LengthField } from '../typing/LengthField.js';
import { SteadyButton } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { KitPanel } from './KitPanel.js';
import { type OrderOf, useOrder } from './useOrder.js';

const Asked = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
  @media (max-width: 1080px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
  gap: 0.25rem 0.75rem;
  align-items: start;
  margin-top: 0.5rem;
  > button { margin-top: 1.5rem; }
`;

const STAGES = {
  drawing: 'Drawing engines',
  trimming: 'Removing what is not needed',
  checking: 'Checking on new simulated engines',
} as const;

const FAMILY_OPTIONS = [
  { value: 'main', label: 'the mains' },
  { value: 'both', label: 'the mains and the rods' },
] as const;

const MIXED_OPTIONS = [
  { value: 'yes', label: 'Allowed' },
  { value: 'no', label: 'Not allowed' },
] as const;

type Order = ReturnType<typeof useOrder>;

/** What is asked for: families, chance, mixed pairs, how often each mark is drawn, spread. */
function Question({ id, unit, order }: { readonly id: string; readonly unit: Unit; readonly order: Order }) {
  const { wishes, set, seenParts, isTarget, isReady, workOut, progress, stop } = order;
  return (
    <Asked>
      <Choice
        label="Shells for"
        value={wishes.families}
        options={FAMILY_OPTIONS}
        onChange={(families) => set({ families })}
      />
      <Field
        label="Chance of at least, %"
        figure
        inputMode="decimal"
        value={wishes.target}
        onChange={(target) => set({ target })}
        fault={isTarget ? null : 'Above 0, up to 100.'}
      />
      <Choice
        label="Two grades in a station"
        value={wishes.isMixed ? 'yes' : 'no'}
        options={MIXED_OPTIONS}
        onChange={(value) => set({ isMixed: value === 'yes' })}
      />
      {seenParts > 0 && (
        <Choice
          label="Frequency of grade marks"
          value={wishes.isSeen ? 'seen' : 'even'}
          options={[
            { value: 'even', label: 'evenly over the range' },
            { value: 'seen', label: `as in ${seenParts} parts seen here` },
          ]}
          onChange={(value) => set({ isSeen: value === 'seen' })}
        />
      )}
      <LengthField
        kept={{ of: id, part: 'order', field: 'alike' }}
        label={`Alike along the shaft within, ${unit}`}
        unit={unit}
        value={wishes.alike}
        check={(value) => (value >= 0 ? null : 'Enter 0 or more.')}
        onCommit={(alike) => set({ alike })}
      />
      {progress ? (
        <SteadyButton onPress={stop}>
          <Square aria-hidden size={18} />
          Stop
        </SteadyButton>
      ) : (
        <SteadyButton $kind="primary" isDisabled={!isReady} onPress={workOut}>
          <Search aria-hidden size={20} />
          Calculate
        </SteadyButton>
      )}
    </Asked>
  );
}

/** What keeps the calculation from beginning, or from covering every station. */
function LeftOut({ blocked, question, missing }: Order) {
  return (
    <>
      {(blocked.length > 0 || (!question.ok && missing.length === 0)) && (
        <Notice>
          {blocked.length > 0 ? `${blocked.join(', ')} left out` : 'Nothing left to order for'}: a size out of limits
          excludes every shell for {blocked.length === 1 ? 'it' : 'them'} until machined.
        </Notice>
      )}
      {missing.length > 0 && (
        <Notice>More of the data sheet is needed: {missing.join(', ')}. Nothing is assumed in its place.</Notice>
      )}
    </>
  );
}

/** Which halves should be on the shelf before the work begins, so that it does not stop for a missing grade. */
export function OrderAdvisor(of: OrderOf) {
  const { id, document, readings, name } = of;
  const order = useOrder(of);
  const { wishes, seenParts, progress, fault, advice } = order;
  return (
    <>
      <Panel>
        <PanelTitle>What to stock</PanelTitle>
        <Quiet>
          Simulates engines within {name}’s bands;{' '}
          {readings.some(({ nm }) => nm !== null) ? 'measured parts keep their size, ' : ''}marks by their bands, other
          sizes{' '}
          {wishes.isSeen && seenParts > 0
            ? 'by bands, as often as this workshop saw each'
            : 'evenly over the data sheet’s range'}
          . Each is fitted by the exact search with mid-grade walls.
        </Quiet>
        <Question id={id} unit={document.unit} order={order} />
        <LeftOut {...order} />
        {progress && (
          <p role="status">
            {STAGES[progress.stage]} … <progress max={1} value={progress.done} aria-label={STAGES[progress.stage]} />
          </p>
        )}
        {fault && <Notice urgent>The calculation failed: {fault}</Notice>}
      </Panel>
      {advice && <KitPanel document={document} name={name} order={order} advice={advice} />}
    </>
  );
}
