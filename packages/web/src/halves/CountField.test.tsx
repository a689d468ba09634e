// @vitest-environment jsdom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, expect, it, vi } from 'vitest';

// What this stand-in of a browser does not have: a screen that is wide.
vi.hoisted(() => {
  const media = { matches: false, addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('matchMedia', () => media);
});

import { DataTable } from '../ui/DataTable.js';
import { noteText } from '../ui/typingNotes.js';
import { keptKey } from '../ui/useKeptText.js';
import { CountField } from './CountField.js';

interface Counted {
  readonly id: string;
  readonly onHand: number;
}

beforeEach(() => localStorage.clear());

const placeOf = (id: string) => ({ of: id, part: 'half', field: 'onHand' });
const boxOf = (id: string) => screen.getByLabelText(`On hand of ${id}`);

/** A table of so many counts. @returns what was saved */
function counts(rows: number): string[] {
  const saved: string[] = [];
  const items = Array.from({ length: rows }, (_, at): Counted => ({ id: `kind ${at}`, onHand: at }));
  render(
    <DataTable
      label="Counts"
      items={items}
      keyOf={({ id }) => id}
      columns={[
        {
          key: 'onHand',
          head: 'On hand',
          cell: ({ id, onHand }: Counted) => (
            <CountField
              kept={placeOf(id)}
              label={`On hand of ${id}`}
              value={onHand}
              most={999}
              onCommit={(count) => void saved.push(`${id}: ${count}`)}
            />
          ),
        },
      ]}
    />,
  );
  return saved;
}

it('is a box from the start in a short table', () => {
  counts(20);
  expect(document.querySelectorAll('input')).toHaveLength(20);
});

it('is text in a long table until it is entered, then a box in which one types at once, and Enter saves and goes on', () => {
  const saved = counts(61);
  expect(document.querySelectorAll('input')).toHaveLength(0);
  expect(boxOf('kind 3').textContent).toBe('3');
  act(() => boxOf('kind 3').focus());
  const entered = document.activeElement as HTMLInputElement;
  expect(entered).toBe(boxOf('kind 3'));
  expect([entered.value, entered.selectionStart, entered.selectionEnd]).toEqual(['3', 0, 1]);
  fireEvent.change(entered, { target: { value: '12' } });
  fireEvent.keyDown(entered, { key: 'Enter' });
  expect(saved).toEqual(['kind 3: 12']);
  expect(document.activeElement).toBe(boxOf('kind 4'));
  expect((boxOf('kind 4') as HTMLInputElement).value).toBe('4');
  expect(document.querySelectorAll('input')).toHaveLength(2);
});

it('is a box from the start where something was typed and not saved, however long the table is', () => {
  noteText(keptKey(placeOf('kind 5')), '77');
  counts(61);
  expect((boxOf('kind 5') as HTMLInputElement).value).toBe('77');
  expect(document.querySelectorAll('input')).toHaveLength(1);
});
