import { momentText, type TypedLength } from '@fettle/core';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../ui/Button.js';
import { Table } from '../ui/Panel.js';

/** A column of a list of readings, beside who read it. */
export interface ReadingColumn<Reading> {
  readonly head: string;
  readonly isNumber?: boolean;
  readonly cell: (reading: Reading, id: string) => ReactNode;
}

interface ReadingListProps<Reading> {
  readonly label: string;
  readonly readings: Readonly<Record<string, Reading>>;
  readonly columns: readonly ReadingColumn<Reading>[];
  /** What removing a reading is called, by its number: `Remove reading 3 at M2: 0.041`. */
  readonly removeLabel: (reading: Reading, number: number) => string;
  readonly onRemove: (id: string) => void;
}

/** Readings that were typed one by one, the last first, each with who and when; nothing where there are none. */
export function ReadingList<Reading extends Pick<TypedLength, 'by' | 'at'>>({
  label,
  readings,
  columns,
  removeLabel,
  onRemove,
}: ReadingListProps<Reading>) {
  const list = Object.entries(readings).sort(([, one], [, other]) => (one.at < other.at ? 1 : -1));
  if (list.length === 0) return null;
  return (
    <Table aria-label={label}>
      <thead>
        <tr>
          {columns.map(({ head, isNumber }) => (
            <th key={head} className={isNumber ? 'number' : undefined}>
              {head}
            </th>
          ))}
          <th>By</th>
          <th>
            <span className="visually-hidden">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {list.map(([id, reading], at) => (
          <tr key={id}>
            {columns.map(({ head, isNumber, cell }) => (
              <td key={head} className={isNumber ? 'number' : undefined}>
                {cell(reading, id)}
              </td>
            ))}
            <td>
              {reading.by}, {momentText(reading.at)}
            </td>
            <td>
              <Button $kind="quiet" aria-label={removeLabel(reading, list.length - at)} onPress={() => onRemove(id)}>
                <Trash2 aria-hidden size={18} />
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
