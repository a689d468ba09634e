// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { beforeEach, expect, it } from 'vitest';
import { LimitsTable } from './LimitsTable.js';
import { EMPTY_LIMIT, type LimitText, readLimit } from './limitText.js';

const NAMES = ['Main bore', 'Main journal', 'Oil clearance'] as const;
let texts: Record<string, LimitText> = {};

/** Three limits, held as a page holds them. */
function Sheet() {
  const [held, setHeld] = useState<Record<string, LimitText>>({});
  texts = held;
  return (
    <LimitsTable
      unit="mm"
      rows={NAMES.map((name) => {
        const text = held[name] ?? EMPTY_LIMIT;
        return { key: name, name, text, faults: readLimit(text, 'mm').faults };
      })}
      onChange={(key, text) => setHeld((old) => ({ ...old, [key]: text }))}
    />
  );
}

beforeEach(() => void render(<Sheet />));

const boxOf = (name: string, what: string) =>
  screen.getByLabelText<HTMLInputElement>(new RegExp(`^${name}: ${what}`, 'u'));
const low = (name: string) => boxOf(name, 'low limit');
const high = (name: string) => boxOf(name, 'high limit');
const source = (name: string) => boxOf(name, 'source');
const type = (box: HTMLInputElement, value: string) => {
  box.focus();
  fireEvent.change(box, { target: { value } });
};
const enter = () => fireEvent.keyDown(document.activeElement!, { key: 'Enter' });
const paste = (box: HTMLInputElement, text: string) => fireEvent.paste(box, { clipboardData: { getData: () => text } });

it('goes on with Enter down the column, then down the next, over what is filled', () => {
  type(low('Main bore'), '64.000');
  enter();
  expect(document.activeElement).toBe(low('Main journal'));
  type(low('Main journal'), '59.976');
  type(low('Oil clearance'), '0.020');
  enter();
  expect(document.activeElement).toBe(high('Main bore'));
});

it('takes a range typed or pasted into one end as both, and Enter passes the end that it fills', () => {
  type(low('Main bore'), '64.000-64.019');
  enter();
  fireEvent.blur(low('Main bore'));
  expect(texts['Main bore']).toMatchObject({ low: '64.000', high: '64.019' });
  paste(low('Main journal'), '59.976 to 59.994');
  expect(texts['Main journal']).toMatchObject({ low: '59.976', high: '59.994' });
});

it('takes a block of a spreadsheet as it is, and leaves out what does not fit below', () => {
  paste(low('Main journal'), '59.976\t59.994\tbook, p. 3\n0.020\t0.050\n1\t2');
  expect(texts['Main journal']).toEqual({ low: '59.976', high: '59.994', source: 'book, p. 3' });
  expect(texts['Oil clearance']).toMatchObject({ low: '0.020', high: '0.050' });
  expect(texts['Main bore']).toBeUndefined();
});

it('lets a source stand for the filled rows below it, up to one that has its own', () => {
  paste(low('Main bore'), '64.000\t64.019\n59.976\t59.994\n0.020\t0.050\tbook, p. 9');
  type(source('Main bore'), 'book, p. 3');
  fireEvent.blur(source('Main bore'));
  expect(Object.values(texts).map((text) => text.source)).toEqual(['book, p. 3', 'book, p. 3', 'book, p. 9']);
});

it('moves with the arrows, sideways only from the end of what is typed', () => {
  type(low('Main journal'), '59.976');
  fireEvent.keyDown(low('Main journal'), { key: 'ArrowUp' });
  expect(document.activeElement).toBe(low('Main bore'));
  low('Main journal').focus();
  low('Main journal').setSelectionRange(2, 2);
  fireEvent.keyDown(low('Main journal'), { key: 'ArrowRight' });
  expect(document.activeElement).toBe(low('Main journal'));
  low('Main journal').setSelectionRange(6, 6);
  fireEvent.keyDown(low('Main journal'), { key: 'ArrowRight' });
  expect(document.activeElement).toBe(high('Main journal'));
});
