import type { SortingState } from '@tanstack/react-table';
import styled from 'styled-components';
import type { DataColumn } from './dataColumns.js';

const Sorting = styled.label`
  display: flex; align-items: center; gap: 0.5rem; margin: 0.4rem 0; font-size: var(--size-small); font-weight: 600;
  select { flex: 1; min-width: 0; min-height: var(--target); font: inherit; padding: 0 0.5rem; color: var(--ink); background: var(--surface); border: var(--rule) solid var(--line-strong); border-radius: var(--radius); }
`;

interface SortChoiceProps {
  /** What the table lists. */
  readonly label: string;
  /** The columns it can be sorted by. */
  readonly columns: readonly Pick<DataColumn<never>, 'key' | 'head'>[];
  readonly sorting: SortingState;
  readonly onSort: (sorting: SortingState) => void;
}

/** What a table is sorted by where its head is not shown: in a hand. */
export function SortChoice({ label, columns, sorting: [by], onSort }: SortChoiceProps) {
  return (
    <Sorting>
      Sort by
      <select
        aria-label={`Sort by, ${label}`}
        value={by ? `${by.desc ? 'desc' : 'asc'} ${by.id}` : ''}
        onChange={({ target: { value } }) => {
          const [way, ...id] = value.split(' ');
          onSort(value === '' ? [] : [{ id: id.join(' '), desc: way === 'desc' }]);
        }}
      >
        <option value="">As listed</option>
        {columns.flatMap(({ key, head }) =>
          (['asc', 'desc'] as const).map((way) => (
            <option key={`${key} ${way}`} value={`${way} ${key}`}>
              {typeof head === 'string' && head !== '' ? head : key}, {way === 'asc' ? 'ascending' : 'descending'}
            </option>
          )),
        )}
      </select>
    </Sorting>
  );
}
