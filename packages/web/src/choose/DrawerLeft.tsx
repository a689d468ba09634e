import {
  type AcceptedChoice,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  shellsInOrder,
} from '@fettle/core';
import styled from 'styled-components';
import { Panel, PanelTitle, Quiet, Table } from '../look/Panel.js';

const Short = styled.tr`
  td:last-child { color: var(--close); font-weight: 700; }
`;

interface DrawerLeftProps {
  readonly document: JobDocument;
  readonly halves: AcceptedChoice['stations'];
}

/** What the shown choice takes from the drawer and what is left. */
export function DrawerLeft({ document, halves }: DrawerLeftProps) {
  const taken = Object.values(halves).flatMap(({ upper, lower }) => [upper.shell, lower.shell]);
  const shells = shellsInOrder(document);
  return (
    <Panel>
      <PanelTitle>Left in the drawer</PanelTitle>
      <Quiet>
        {shells.length === 0
          ? 'No halves in it yet.'
          : 'Touch a main to see its sum and what the other pairs would give.'}
      </Quiet>
      <Table>
        <thead>
          <tr>
            <th>Half</th>
            <th className="number">Wall</th>
            <th className="number">Used</th>
            <th className="number">Left</th>
          </tr>
        </thead>
        <tbody>
          {shells.map(({ id, shell }) => {
            const used = taken.filter((other) => other === id).length;
            const left = shell.stock === null ? null : shell.stock - used;
            const Line = left === 0 ? Short : 'tr';
            return (
              <Line key={id}>
                <td>
                  {shell.grade} {shell.half}
                </td>
                <td className="number">
                  {formatExactLength(shell.wall, document.unit, INSTRUMENT_DECIMALS[document.unit])}
                </td>
                <td className="number">{used || '·'}</td>
                <td className="number">{left === null ? 'any' : left === 0 ? 'none' : left}</td>
              </Line>
            );
          })}
        </tbody>
      </Table>
    </Panel>
  );
}
