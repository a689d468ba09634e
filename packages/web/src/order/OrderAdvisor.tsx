import { Search, Square } from 'lucide-react';
import styled from 'styled-components';
import { SteadyButton } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet } from '../look/Panel.js';
import { LengthField } from '../measure/LengthField.js';
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
  trimming: 'Leaving out what is not needed',
  checking: 'Checking on engines drawn afresh',
} as const;

/** Which halves should be on the shelf before the work begins, so that it does not stop for a missing grade. */
export function OrderAdvisor(of: OrderOf) {
  const { id, document, readings, name } = of;
  const { unit } = document;
  const order = useOrder(of);
  const { wishes, set, question, missing, blocked, isTarget, isReady, workOut, advice, progress, fault, stop } = order;
  return (
    <>
      <Panel>
        <PanelTitle>What should be on the shelf</PanelTitle>
        <Quiet>
          Engines are drawn from all that {name} may be:{' '}
          {readings.some(({ nm }) => nm !== null) ? 'what was read counts as read, ' : ''}
          marks by their bands, the rest by all that the data sheet allows, evenly. Each is fitted by the exact search
          with walls in the middle of their grades.
        </Quiet>
        <Asked>
          <Choice
            label="Halves for"
            value={wishes.families}
            options={[
              { value: 'main', label: 'the mains' },
              { value: 'both', label: 'the mains and the rods' },
            ]}
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
            label="Halves of two grades in a station"
            value={wishes.isMixed ? 'yes' : 'no'}
            options={[
              { value: 'yes', label: 'Allowed' },
              { value: 'no', label: 'Not allowed' },
            ]}
            onChange={(value) => set({ isMixed: value === 'yes' })}
          />
          <LengthField
            kept={{ of: id, part: 'order', field: 'alike' }}
            label={`Alike along the shaft within, ${unit}`}
            unit={unit}
            value={wishes.alike}
            check={(value) => (value >= 0 ? null : 'Zero or more.')}
            onCommit={(alike) => set({ alike })}
          />
          {progress ? (
            <SteadyButton onPress={stop}>
              <Square aria-hidden size={18} />
              Stop
            </SteadyButton>
          ) : (
            <SteadyButton $kind="main" isDisabled={!isReady} onPress={workOut}>
              <Search aria-hidden size={20} />
              Work it out
            </SteadyButton>
          )}
        </Asked>
        {(blocked.length > 0 || (!question.ok && missing.length === 0)) && (
          <Notice>
            {blocked.length > 0 ? `${blocked.join(', ')} left out` : 'Nothing is left to order for'}: a size outside the
            data sheet keeps every shell from {blocked.length === 1 ? 'it' : 'them'} until it is machined.
          </Notice>
        )}
        {missing.length > 0 && (
          <Notice>That needs more of the data sheet: {missing.join(', ')}. Nothing is assumed in their place.</Notice>
        )}
        {progress && (
          <p role="status">
            {STAGES[progress.stage]} … <progress max={1} value={progress.done} aria-label={STAGES[progress.stage]} />
          </p>
        )}
        {fault && <Notice urgent>It could not be worked out: {fault}</Notice>}
      </Panel>
      {advice && <KitPanel document={document} name={name} order={order} advice={advice} />}
    </>
  );
}
