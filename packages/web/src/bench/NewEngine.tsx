import { type LimitKey, limitName } from '@fettle/core';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { LimitsTable } from '../limits/LimitsTable.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { Button } from '../ui/Button.js';
import { focusFirstFault } from '../ui/focusFirstFault.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { EngineFields } from './EngineFields.js';
import { useNewEngine } from './useNewEngine.js';

/** In sight however long the sheet is, and after its fields. */
const Foot = styled(Row)`
  position: sticky;
  bottom: 0;
  padding: 0.6rem 0;
  background: var(--bg);
`;

/** Starts an engine: what it is, and what its data sheet says. */
export function NewEngine() {
  useTitle('New engine');
  const navigate = useNavigate();
  const engine = useNewEngine();
  const { setLimit, form, library, isTyped, layout, keys, limits, isTried, isReady, nameFault, submit } = engine;
  const { build, isFetching, buildFault } = engine;
  const { view, fault } = library;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
        focusFirstFault(event.currentTarget);
      }}
      style={{ display: 'flex', flexDirection: 'column', gap: '0.75rem' }}
      noValidate
      aria-label="New engine"
    >
      <PanelTitle as="h1">New engine</PanelTitle>
      {buildFault && <Notice urgent>Earlier build not readable: {buildFault}</Notice>}
      {fault && <Notice urgent>The library cannot be read: {fault}</Notice>}
      <Panel>
        <EngineFields {...engine} />
        {isTyped && layout && <ShaftDrawing layout={layout} height={110} />}
        {build && (
          <Quiet>
            Data sheet, positions, materials and marks come from {build.name}; its sizes appear beside the new ones.
            That build stays unchanged.
          </Quiet>
        )}
        {!isTyped && !build && view && (
          <>
            <ShaftDrawing layout={view.type.layout} height={110} />
            <Quiet>
              {view.type.name}, revision {view.revision}: layout, limits with their sources, grades, undersizes and
              grade tables are copied; later changes in the engine do not change the type.
            </Quiet>
          </>
        )}
      </Panel>
      {isTyped && (
        <Panel>
          <PanelTitle>Limits from the data sheet</PanelTitle>
          <Quiet>
            From the engine maker's current book, with the page. What you do not have yet can wait; until it is here no
            verdict depends on it.
          </Quiet>
          <LimitsTable
            rows={keys.map((key) => ({
              key,
              name: limitName(key),
              text: form.limits[key],
              faults: isTried ? (limits[key]?.faults ?? {}) : {},
            }))}
            unit={form.unit}
            onChange={(key, text) => setLimit(key as LimitKey, text)}
          />
        </Panel>
      )}
      <Foot>
        <Button $kind="primary" type="submit">
          {isFetching ? 'Loading the earlier build …' : 'Create engine'}
        </Button>
        <Button onPress={() => navigate('/')}>Back</Button>
        {isTried && (isTyped ? !isReady : nameFault !== null) && <Notice urgent>Check the marked fields.</Notice>}
      </Foot>
    </form>
  );
}
