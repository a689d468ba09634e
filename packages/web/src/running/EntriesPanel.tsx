import { entriesInOrder, PRESSURE_WORDS, pressureText, pressureVerdicts, RUN_UNITS, roughText } from '@fettle/core';
import { Trash2 } from 'lucide-react';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Panel, PanelTitle, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { EntryForm } from './EntryForm.js';
import { fellText, stateWords } from './pressureWords.js';
import type { RunningWork } from './useRunning.js';

const UNIT_WORDS = { h: 'hours', km: 'kilometres', mi: 'miles' } as const;

function EntryTable({ work }: { readonly work: RunningWork }) {
  const { running, document } = work;
  const { shown } = useClearances(document.unit);
  const entries = entriesInOrder(running).reverse();
  const verdicts = pressureVerdicts(running);
  return (
    <WideTable>
      <Table aria-label="Readings after the build">
        <thead>
          <tr>
            <th>Day</th>
            <th className="number">Run, {running.unit}</th>
            <th>Oil pressure</th>
            <th className="number">End play</th>
            <th>Notes</th>
            <th>By</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {entries.map(({ key, on, run, celsius, endPlay, words, by }) => (
            <tr key={key}>
              <td style={{ whiteSpace: 'nowrap' }}>{on}</td>
              <td className="number">{run}</td>
              <td>
                {verdicts
                  .filter(({ entry }) => entry === key)
                  .map((one) => (
                    <div key={one.moment}>
                      <strong className="figure">{pressureText(one.read)}</strong> {PRESSURE_WORDS[one.moment]}
                      {one.read.rpm !== null && `, ${one.read.rpm} rpm`}
                      {one.state !== 'no-limit' && (
                        <span style={one.state === 'inside' ? {} : { color: 'var(--tight)', fontWeight: 700 }}>
                          , {stateWords(one)}
                        </span>
                      )}
                      {fellText(one) !== '' && `; ${fellText(one)}`}
                    </div>
                  ))}
                {celsius !== null && `oil ${celsius} °C`}
              </td>
              <td className="number">{endPlay?.nm == null ? '' : roughText(endPlay.nm, shown)}</td>
              <td>{words}</td>
              <td>{by}</td>
              <td>
                <Button $kind="quiet" aria-label={`Remove the reading of ${on}`} onPress={() => work.removeEntry(key)}>
                  <Trash2 aria-hidden size={18} />
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </WideTable>
  );
}

/** Readings after the build: a form for the next one, and those that there are, the last first. */
export function EntriesPanel({ work }: { readonly work: RunningWork }) {
  const { running } = work;
  return (
    <Panel aria-label="Pressures and running in">
      <Row style={{ justifyContent: 'space-between', alignItems: 'start' }}>
        <PanelTitle>Pressures and running in</PanelTitle>
        <Choice
          label="Run in"
          value={running.unit}
          options={RUN_UNITS.map((value) => ({ value, label: UNIT_WORDS[value] }))}
          onChange={work.setUnit}
        />
      </Row>
      <EntryForm work={work} />
      {Object.keys(running.entries).length > 0 && <EntryTable work={work} />}
    </Panel>
  );
}
