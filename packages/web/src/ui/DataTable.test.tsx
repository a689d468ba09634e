// @vitest-environment jsdom
import { fireEvent, render, screen, within } from '@testing-library/react';
import { expect, it, vi } from 'vitest';

// What this stand-in of a browser does not have: a screen that is wide.
vi.hoisted(() => {
  const media = { matches: false, addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('matchMedia', () => media);
});

import { DataTable } from './DataTable.js';
import type { DataColumn } from './dataColumns.js';

interface Kept {
  readonly name: string;
  readonly stock: number | null;
}

const KEPT: readonly Kept[] = [
  { name: 'Bin 10', stock: 2 },
  { name: 'Bin 9', stock: null },
  { name: 'Bin 2', stock: 11 },
  { name: 'bin 1', stock: 3 },
];
const COLUMNS: readonly DataColumn<Kept>[] = [
  { key: 'name', head: 'Name', cell: ({ name }) => name, sortBy: ({ name }) => name },
  { key: 'stock', head: 'Stock', cell: ({ stock }) => stock ?? 'any', sortBy: ({ stock }) => stock, isFigure: true },
  { key: 'note', head: 'Note', cell: () => '–' },
];

function shown(onOpen?: (item: Kept) => void) {
  render(
    <DataTable
      label="Saved"
      items={KEPT}
      columns={COLUMNS}
      keyOf={({ name }) => name}
      {...(onOpen ? { onOpen } : {})}
    />,
  );
}

const rows = () => within(screen.getAllByRole('rowgroup')[1]!).getAllByRole('row');
const names = () => rows().map((row) => within(row).getAllByRole('cell')[0]!.textContent);

it('starts in the order of its items, and sorts by a head that is pressed: up, down, as it was', () => {
  shown();
  expect(names()).toEqual(['Bin 10', 'Bin 9', 'Bin 2', 'bin 1']);
  const head = screen.getByRole('button', { name: 'Stock' });
  fireEvent.click(head);
  expect(names()).toEqual(['Bin 10', 'bin 1', 'Bin 2', 'Bin 9']);
  expect(screen.getByRole('columnheader', { name: 'Stock' }).getAttribute('aria-sort')).toBe('ascending');
  fireEvent.click(head);
  // What has no figure stays last.
  expect(names()).toEqual(['Bin 2', 'bin 1', 'Bin 10', 'Bin 9']);
  expect(screen.getByRole('columnheader', { name: 'Stock' }).getAttribute('aria-sort')).toBe('descending');
  fireEvent.click(head);
  expect(names()).toEqual(['Bin 10', 'Bin 9', 'Bin 2', 'bin 1']);
});

it('sorts names as people do: numbers within them by size, whatever their case', () => {
  shown();
  fireEvent.click(screen.getByRole('button', { name: 'Name' }));
  expect(names()).toEqual(['bin 1', 'Bin 2', 'Bin 9', 'Bin 10']);
});

it('does not offer to sort by what has no order', () => {
  shown();
  expect(screen.queryByRole('button', { name: 'Note' })).toBeNull();
});

it('is gone along with the arrow keys, and Enter opens a row', () => {
  const opened: string[] = [];
  shown(({ name }) => opened.push(name));
  rows()[0]!.focus();
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowUp', 'Enter', 'End', 'Enter', 'ArrowDown', 'Home', 'Enter']) {
    fireEvent.keyDown(document.activeElement!, { key });
  }
  expect(opened).toEqual(['Bin 9', 'bin 1', 'Bin 10']);
});

it('shows the first hundred of a long list, sorted all together, and more when asked: the first of them is in hand', () => {
  const many = Array.from({ length: 410 }, (_, at): Kept => ({ name: `Bin ${410 - at}`, stock: 0 }));
  const { container } = render(
    <DataTable label="Saved" items={many} columns={COLUMNS} keyOf={({ name }) => name} what="bins" />,
  );
  const drawn = () => [...container.querySelectorAll('tbody tr')];
  expect(drawn()).toHaveLength(100);
  fireEvent.click(screen.getByText('Name'));
  expect(drawn()[1]!.textContent).toContain('Bin 2');
  expect(screen.getByText('100 of 410 bins, the first.')).toBeTruthy();
  fireEvent.click(screen.getByText('Show more bins'));
  expect(drawn()).toHaveLength(400);
  expect(document.activeElement).toBe(drawn()[100]);
  fireEvent.click(screen.getByText('Show more bins'));
  expect(drawn()).toHaveLength(410);
  expect(screen.queryByText('Show more bins')).toBeNull();
});

it('shows the current row and those that were typed in, however far down they are', () => {
  const many = Array.from({ length: 410 }, (_, at): Kept => ({ name: `Bin ${at}`, stock: 0 }));
  const { container } = render(
    <DataTable
      label="Saved"
      items={many}
      columns={COLUMNS}
      keyOf={({ name }) => name}
      what="bins"
      isCurrent={({ name }) => name === 'Bin 205'}
      isTyped={({ name }) => ['Bin 7', 'Bin 400'].includes(name)}
    />,
  );
  const drawn = () => [...container.querySelectorAll('tbody tr')].map((row) => row.firstChild!.textContent);
  expect(drawn().slice(99)).toEqual(['Bin 99', 'Bin 205', 'Bin 400']);
  expect(screen.getByText('102 of 410 bins, the first and the selected ones.')).toBeTruthy();
  fireEvent.click(screen.getByText('Show more bins'));
  expect(drawn()).toHaveLength(401);
  expect(document.activeElement!.firstChild!.textContent).toBe('Bin 100');
});
