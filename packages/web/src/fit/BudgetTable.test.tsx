// @vitest-environment jsdom
import type { Budget } from '@fettle/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { BudgetTable } from './BudgetTable.js';

const source = (words: string, u: number, sensitivity: number): Budget[number] => ({
  key: words,
  words,
  u,
  shape: 'normal',
  sensitivity,
});

it('opens a ± to its sources, the largest share first, and what they come to together', () => {
  // By hand, µm: 2 · 2 = 4 and 3: together 5; 16/25 and 9/25.
  const budget = [source('bore gauge, setting', 3_000, 1), source('wall of 1996', 2_000, -2)];
  render(<BudgetTable of="the clearance of M1" budget={budget} unit="mm" />);
  expect(screen.queryByRole('table')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Where ± comes from: the clearance of M1' }));
  const rows = screen
    .getAllByRole('row')
    .map((row) => [...row.querySelectorAll('td')].map(({ textContent }) => textContent));
  expect(rows.slice(1)).toEqual([
    ['wall of 1996', '0.0020', '−2 ×', '64 %'],
    ['bore gauge, setting', '0.0030', '1 ×', '36 %'],
    ['Together; ± is 2 times it', '0.0050', '', '100 %'],
  ]);
});

it('says nothing of what is exact', () => {
  const { container } = render(<BudgetTable of="the clearance of M1" budget={[]} unit="mm" />);
  expect(container.textContent).toBe('');
});
