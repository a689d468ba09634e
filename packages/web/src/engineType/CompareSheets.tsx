import { momentText, sheetDifferences, type TypeRevision } from '@fettle/core';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { DifferenceTable } from './DifferenceTable.js';
import { textOfType } from './typeText.js';
import { type ComparedSheets, useComparedSheets } from './useComparedSheets.js';

const Asked = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.75rem;
  max-width: 42rem;
`;

/** Places that are named in a row; the others are counted. */
const MOST_PLACES = 4;

/** What a revision changed; the first one has none before it. */
function whatChanged(one: TypeRevision, before: TypeRevision | null | undefined): string {
  if (!before) return one.revision === 1 ? 'first entered' : '';
  const places = sheetDifferences(before.type, one.type).map(({ place }) => place);
  const more = places.length > MOST_PLACES ? ` and ${places.length - MOST_PLACES} more` : '';
  return places.slice(0, MOST_PLACES).join('; ') + more;
}

function Revisions({ compared }: { readonly compared: ComparedSheets }) {
  const { revisions, page, saved, change } = compared;
  return (
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
        {revisions.map((one, at) => (
          <tr key={one.revision}>
            <td>{one.revision}</td>
            <td>{momentText(one.at)}</td>
            <td>{one.by}</td>
            <td>{whatChanged(one, revisions[at + 1] ?? page?.before)}</td>
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
        ))}
      </tbody>
    </Table>
  );
}

/** What changed from revision to revision, and where this sheet differs from another one. */
export function CompareSheets() {
  const compared = useComparedSheets();
  const { error, from, offered, page, saved } = compared;
  return (
    <>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
      <Panel>
        <PanelTitle>Compare with</PanelTitle>
        <Asked>
          <Choice label="Engine type" value={compared.other} options={compared.types} onChange={compared.chooseType} />
          <Choice
            label="Revision"
            value={from ? String(from.revision) : ''}
            options={offered.map((one) => ({
              value: String(one.revision),
              label: `${one.revision}, ${momentText(one.at)}, ${one.by}`,
            }))}
            onChange={(revision) => compared.chooseRevision(Number(revision))}
          />
        </Asked>
        {!from ? (
          <Quiet>Nothing to compare with yet.</Quiet>
        ) : (
          <DifferenceTable
            differences={compared.differences}
            from={`${from.type.name}, revision ${from.revision}`}
            to="This sheet, as it stands here"
          />
        )}
      </Panel>
      <Panel>
        <PanelTitle>Revisions</PanelTitle>
        {compared.revisions.length === 0 ? (
          <Quiet>{saved === 0 ? 'Not in the library yet.' : error ? 'Not known now.' : 'Loading revisions …'}</Quiet>
        ) : (
          <Revisions compared={compared} />
        )}
        {page && <Pager after={compared.after} goesOn={page.goesOn} onGo={compared.setAfter} />}
      </Panel>
    </>
  );
}
