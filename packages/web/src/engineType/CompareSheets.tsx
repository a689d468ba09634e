import { sheetDifferences, type TypeRevision, type TypeSummary } from '@fettle/core';
import { format } from 'date-fns';
import { useEffect, useState } from 'react';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Table } from '../look/Panel.js';
import { fetchRevisions, fetchTypes } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';
import { DifferenceTable } from './DifferenceTable.js';
import { useOpenType } from './TypePage.js';
import { textOfType } from './typeText.js';

/** What changed from revision to revision, and where this sheet differs from another one. */
export function CompareSheets() {
  const { id, type, view, change } = useOpenType();
  const [revisions, setRevisions] = useState<readonly TypeRevision[]>([]);
  const [others, setOthers] = useState<readonly TypeSummary[]>([]);
  const [other, setOther] = useState(id);
  const [theirs, setTheirs] = useState<readonly TypeRevision[]>([]);
  const [revision, setRevision] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const saved = view?.revision ?? 0;
  useEffect(() => {
    const complain = (error: unknown) => setFault(refusalInWords(error));
    if (saved > 0) fetchRevisions(id).then(setRevisions).catch(complain);
    fetchTypes('', false).then(setOthers).catch(complain);
  }, [id, saved]);
  useEffect(() => {
    if (other === id) setTheirs(revisions);
    else
      fetchRevisions(other)
        .then(setTheirs)
        .catch((error: unknown) => setFault(refusalInWords(error)));
    setRevision('');
  }, [other, id, revisions]);
  const from = theirs.find((one) => String(one.revision) === revision) ?? theirs[0];
  const differences = type && from ? sheetDifferences(from.type, type) : [];
  return (
    <>
      {fault && <Notice urgent>{fault}</Notice>}
      <Panel>
        <PanelTitle>Compare with</PanelTitle>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: '0.75rem', maxWidth: '42rem' }}>
          <Choice
            label="Engine type"
            value={other}
            options={[
              { value: id, label: 'An earlier revision of this one' },
              ...others.filter((one) => one.id !== id).map((one) => ({ value: one.id, label: one.name })),
            ]}
            onChange={setOther}
          />
          <Choice
            label="Revision"
            value={from ? String(from.revision) : ''}
            options={theirs.map((one) => ({
              value: String(one.revision),
              label: `${one.revision}, ${format(new Date(one.at), 'd MMM yyyy HH:mm')}, ${one.by}`,
            }))}
            onChange={setRevision}
          />
        </div>
        {!from ? (
          <Quiet>Nothing to compare with yet.</Quiet>
        ) : (
          <DifferenceTable
            differences={differences}
            from={`${from.type.name}, revision ${from.revision}`}
            to="This sheet, as it stands here"
          />
        )}
      </Panel>
      <Panel>
        <PanelTitle>Revisions</PanelTitle>
        {revisions.length === 0 ? (
          <Quiet>Not in the library yet.</Quiet>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Revision</th>
                <th>Saved</th>
                <th>By</th>
                <th>What changed</th>
                <th>
                  <span className="visually-hidden">Go back to it</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {revisions.map((one, at) => {
                const before = revisions[at + 1];
                const changed = before ? sheetDifferences(before.type, one.type) : [];
                return (
                  <tr key={one.revision}>
                    <td>{one.revision}</td>
                    <td>{format(new Date(one.at), 'd MMM yyyy HH:mm')}</td>
                    <td>{one.by}</td>
                    <td>
                      {before
                        ? changed
                            .slice(0, 4)
                            .map(({ place }) => place)
                            .join('; ') + (changed.length > 4 ? ` and ${changed.length - 4} more` : '')
                        : 'first entered'}
                    </td>
                    <td>
                      {at > 0 && (
                        <Button
                          aria-label={`Start again from revision ${one.revision}`}
                          onPress={() => change(() => textOfType(one.type))}
                        >
                          Start again from it
                        </Button>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        )}
      </Panel>
    </>
  );
}
