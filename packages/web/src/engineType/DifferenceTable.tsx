import type { SheetDifference } from '@fettle/core';
import styled from 'styled-components';
import { Table } from '../ui/Panel.js';

const Scroll = styled.div`
  max-height: 24rem;
  overflow-y: auto;
  margin-top: 0.5rem;
  td { overflow-wrap: anywhere; }
`;

interface DifferenceTableProps {
  readonly differences: readonly SheetDifference[];
  /** What the two sheets are called. */
  readonly from: string;
  readonly to: string;
}

/** Two data sheets side by side, only where they differ. */
export function DifferenceTable({ differences, from, to }: DifferenceTableProps) {
  if (differences.length === 0) return <p role="status">No differences.</p>;
  return (
    <Scroll>
      <Table aria-label="Differences">
        <thead>
          <tr>
            <th>Place</th>
            <th>{from}</th>
            <th>{to}</th>
          </tr>
        </thead>
        <tbody>
          {differences.map(({ place, from: one, to: other }) => (
            <tr key={place}>
              <td>{place}</td>
              <td>{one ?? 'nothing'}</td>
              <td>{other ?? 'nothing'}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}
