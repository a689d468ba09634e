import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { Panel, PanelTitle } from '../look/Panel.js';
import { useTitle } from './useTitle.js';

/** A page that is not there, or one that failed: what was typed is safe either way. */
export function Fault() {
  const error = useRouteError();
  const isMissing = error == null || isRouteErrorResponse(error);
  useTitle(isMissing ? 'No such page' : 'This view failed');
  return (
    <Panel role="alert">
      <PanelTitle as="h1">{isMissing ? 'There is no such page' : 'This view failed'}</PanelTitle>
      <p>
        {isMissing
          ? 'The address leads nowhere in Fettle. '
          : `The program made a mistake: ${error instanceof Error ? error.message : String(error)}. Readings already left are kept. `}
        <Link to="/">Back to the benches</Link>
      </p>
    </Panel>
  );
}
