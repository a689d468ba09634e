import { type LimitKey, limitClashes, limitName, sheetDifferences, withSheet } from '@fettle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { textOfLimit } from '../limits/limitText.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { DifferenceTable } from './DifferenceTable.js';
import { useLibrary } from './useLibrary.js';

/** Where the data sheet was copied from, what a later revision would change, and how to take another. */
export function OriginPanel({ job }: { readonly job: OpenJob }) {
  const change = useChangeDocument(job);
  const { origin, sheet, unit } = job.document;
  const [wanted, setWanted] = useState(origin?.type ?? '');
  const { types, view: latest, fault } = useLibrary(wanted);
  const [take, setTake] = useState<readonly LimitKey[]>([]);
  const isNews = latest !== null && (origin?.type !== latest.id || origin.revision !== latest.revision);
  const clashes = isNews ? limitClashes(job.document, latest.type) : [];
  const differences = isNews && sheet ? sheetDifferences(sheet, latest.type) : [];
  const isOtherShape =
    isNews &&
    (latest.type.layout.mains !== job.document.layout.mains ||
      latest.type.layout.pins.length !== job.document.layout.pins.length);
  const adopt = () => {
    if (!latest) return;
    change((old) => withSheet(old, latest.type, { type: latest.id, revision: latest.revision }, take));
    setTake([]);
  };
  const text = (limit: (typeof clashes)[number]['ours']) => {
    const { low, high, source } = textOfLimit(limit, unit);
    return limit ? `${low} to ${high} ${unit} (${source})` : 'nothing';
  };
  const known = types.find(({ id }) => id === origin?.type);
  return (
    <Panel aria-label="Engine type">
      <PanelTitle>Engine type</PanelTitle>
      {fault && <Notice urgent>{fault}</Notice>}
      <Quiet>
        {origin && sheet ? (
          <>
            Copied from <Link to={`/types/${origin.type}/sheet`}>{sheet.name}</Link>, revision {origin.revision}
            {known && known.revision > origin.revision && (
              <strong>; the library has revision {known.revision} now</strong>
            )}
            . Limits changed here stay this engine's own.
          </>
        ) : (
          'Not copied from the library. A type from the library brings limits, grades, undersizes and grade tables.'
        )}
      </Quiet>
      <Row style={{ alignItems: 'end' }}>
        <Choice
          label="Data sheet of the library"
          value={wanted}
          options={[
            { value: '', label: 'none' },
            ...types.map((one) => ({ value: one.id, label: `${one.name}, revision ${one.revision}` })),
          ]}
          onChange={setWanted}
        />
        <Button isDisabled={!isNews} onPress={adopt}>
          {origin && latest?.id === origin.type ? `Take revision ${latest.revision}` : 'Use this sheet'}
        </Button>
      </Row>
      {isOtherShape && (
        <Notice>
          It has {latest.type.layout.mains} mains and {latest.type.layout.pins.length} pins. This engine keeps its own
          layout: readings belong to its stations.
        </Notice>
      )}
      {isNews && sheet && (
        <DifferenceTable
          differences={differences}
          from={`${sheet.name}, as copied`}
          to={`${latest.type.name}, revision ${latest.revision}`}
        />
      )}
      {clashes.map(({ key, ours, theirs }) => (
        <label key={key} style={{ display: 'flex', gap: '0.5rem', alignItems: 'center', minHeight: 'var(--target)' }}>
          <input
            type="checkbox"
            style={{ width: 22, height: 22 }}
            checked={take.includes(key)}
            onChange={(event) => setTake(event.target.checked ? [...take, key] : take.filter((other) => other !== key))}
          />
          {limitName(key)}: changed here to {text(ours)}; take {text(theirs)} instead
        </label>
      ))}
    </Panel>
  );
}
