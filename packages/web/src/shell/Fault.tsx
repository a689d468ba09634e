import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { useTitle } from '../base/useTitle.js';
import { Panel, PanelTitle } from '../ui/Panel.js';

/** A page that is not there, or one that failed: what was typed is safe either way. */
export function Fault() {
  const error = useRouteError();
  const isMissing = error == null || isRouteErrorResponse(error);
  useTitle(isMissing ? 'Page not found' : 'This view failed');
  return (
    <Panel role="alert">
      <PanelTitle as="h1">{isMissing ? 'Page not found' : 'This view failed'}</PanelTitle>
      <p>
        {isMissing
          ? 'The address leads nowhere in Fettle. '
          : `Page error: ${error instanceof Error ? error.message : String(error)}. Readings you have left are saved.`}
        <Link to="/">Back to Engines</Link>
      </p>
    </Panel>
  );
}
