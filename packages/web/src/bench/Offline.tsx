import { Link } from 'react-router';
import { useAppSelector } from '../base/store.js';
import { Panel, PanelTitle } from '../ui/Panel.js';

/** The bench while the server does not answer: what can be gone on with here, and what cannot. */
export function Offline() {
  const jobs = useAppSelector((state) => state.saving.jobs);
  const known = Object.values(jobs).filter(({ deletedAt }) => deletedAt === null);
  return (
    <Panel role="status">
      <PanelTitle>The server does not answer</PanelTitle>
      <p>
        The list cannot be loaded. Your entries are saved on this device and sent when the server is back; trying every
        few seconds.
      </p>
      {known.length > 0 && (
        <>
          <p>Opened here before (offline copies):</p>
          <ul aria-label="Engines opened here before">
            {known.map(({ id, document }) => (
              <li key={id}>
                <Link to={`/engines/${id}`}>{document.name}</Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </Panel>
  );
}
