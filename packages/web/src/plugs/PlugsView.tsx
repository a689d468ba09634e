import { useOpenJob } from '../job/JobPage.js';
import { Panel, PanelTitle } from '../ui/Panel.js';

/** The plugs of the oil galleries, and which of them are in. */
export function PlugsView() {
  const { document } = useOpenJob();
  return (
    <Panel>
      <PanelTitle>Oil gallery plugs</PanelTitle>
      <ul>
        {Object.entries(document.plugs).map(([name, one]) => (
          <li key={name}>
            {name}: {one === null ? 'not in' : `in, ${one.by}`}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
