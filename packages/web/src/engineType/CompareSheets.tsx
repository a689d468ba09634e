import type { TypeRevision, TypeView } from '@fettle/core';
import { MOST_TYPES_AT_ONCE, momentText, sheetDifferences } from '@fettle/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { DifferenceTable } from './DifferenceTable.js';
import { textOfType } from './typeText.js';
import { useOpenType } from './useOpenType.js';

const NO_REVISIONS: readonly TypeRevision[] = [];

/** The last revision, as the library tells it. */
function newestOf({ revision, type, updatedAt, updatedBy }: TypeView): TypeRevision {
  return { revision, type, at: updatedAt, by: updatedBy };
}

/** What changed from revision to revision, and where this sheet differs from another one. */
export function CompareSheets() {
  const { id, type, view, change } = useOpenType();
  const saved = view?.revision ?? 0;
  const [other, setOther] = useState(id);
  // The revision that was picked, whichever page of them is shown.
  const [picked, setPicked] = useState<TypeRevision | null>(null);
  const fresh = { refetchOnMountOrArgChange: true } as const;
  const [after, setAfter] = useState<string>();
  const own = api.useTypeRevisionsQuery(
    saved > 0 ? { id, ...(after === undefined ? {} : { after }) } : skipToken,
    fresh,
  );
  const listed = api.useListTypesQuery({ most: MOST_TYPES_AT_ONCE }, fresh);
  const compared = api.useTypeRevisionsQuery(other === id ? skipToken : { id: other }, fresh);
  const error = own.error ?? listed.error ?? compared.error;
  const revisions = own.currentData?.revisions ?? NO_REVISIONS;
  const others = listed.data?.types ?? [];
  const theirs = other === id ? revisions : (compared.currentData?.revisions ?? NO_REVISIONS);
  const choose = (next: string) => {
    setOther(next);
    setPicked(null);
  };
  const newest = other === id ? view && newestOf(view) : theirs[0];
  const from = picked ?? newest;
  const offered = from && !theirs.some((one) => one.revision === from.revision) ? [from, ...theirs] : theirs;
  const differences = type && from ? sheetDifferences(from.type, type) : [];
  return (
    <>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
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
            onChange={choose}
          />
          <Choice
            label="Revision"
            value={from ? String(from.revision) : ''}
            options={offered.map((one) => ({
              value: String(one.revision),
              label: `${one.revision}, ${momentText(one.at)}, ${one.by}`,
            }))}
            onChange={(revision) => setPicked(offered.find((one) => String(one.revision) === revision) ?? null)}
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
          <Quiet>{saved === 0 ? 'Not in the library yet.' : error ? 'Not known now.' : 'Loading revisions …'}</Quiet>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Revision</th>
                <th>Saved</th>
                <th>By</th>
                <th>What changed</th>
                <th>
                  <span className="visually-hidden">Restore</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {revisions.map((one, at) => {
                const before = revisions[at + 1] ?? own.currentData?.before;
                const changed = before ? sheetDifferences(before.type, one.type) : [];
                return (
                  <tr key={one.revision}>
                    <td>{one.revision}</td>
                    <td>{momentText(one.at)}</td>
                    <td>{one.by}</td>
                    <td>
                      {before
                        ? changed
                            .slice(0, 4)
                            .map(({ place }) => place)
                            .join('; ') + (changed.length > 4 ? ` and ${changed.length - 4} more` : '')
                        : one.revision === 1 && 'first entered'}
                    </td>
                    <td>
                      {one.revision < saved && (
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
        {own.currentData && <Pager after={after} goesOn={own.currentData.goesOn} onGo={setAfter} />}
      </Panel>
    </>
  );
}
