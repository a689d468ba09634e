// @vitest-environment jsdom
import { act, renderHook, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { useTableFile } from './useTableFile.js';

const csv = (name: string, text: string) => new File([text], name, { type: 'text/csv' });

it('a chosen file comes as its cells, and is let go of again', async () => {
  const { result } = renderHook(() => useTableFile());
  act(() => result.current.choose(csv('stock.csv', 'Grade;Wall\nTeal;1,995')));
  expect(result.current.underWay?.name).toBe('stock.csv');
  await waitFor(() => expect(result.current.table).not.toBeNull());
  expect(result.current.table).toEqual({
    name: 'stock.csv',
    cells: [
      ['Grade', 'Wall'],
      ['Teal', '1,995'],
    ],
  });
  await waitFor(() => expect(result.current.underWay).toBeNull());
  act(() => result.current.drop());
  expect(result.current.table).toBeNull();
});

it('of two that are chosen one after the other the second counts; one that is given up never comes', async () => {
  const { result } = renderHook(() => useTableFile());
  act(() => {
    result.current.choose(csv('first.csv', 'a,b'));
    result.current.choose(csv('second.csv', 'c,d'));
  });
  await waitFor(() => expect(result.current.table?.name).toBe('second.csv'));
  act(() => result.current.choose(csv('third.csv', 'e,f')));
  act(() => result.current.underWay!.cancel());
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect([result.current.table, result.current.underWay]).toEqual([null, null]);
});
