// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it } from 'vitest';
import { noteDone, notedKeys, notedText, noteText, typedBy } from './typingNotes.js';

const [WREN, TEASEL] = ['0b6f5c6e-0000-4000-8000-000000000001', '0b6f5c6e-0000-4000-8000-000000000002'];
const KEY = 'fettle.typing/engine/M1/bore';

beforeEach(() => localStorage.clear());
afterEach(() => typedBy(null));

it('what one has half typed on a shared device waits for them, and nobody else finishes it', () => {
  typedBy(WREN);
  noteText(KEY, '64.');
  typedBy(TEASEL);
  expect(notedText(KEY)).toBeNull();
  expect(notedKeys('fettle.typing/')).toEqual([]);
  noteText(KEY, '64.02');
  noteDone(KEY);
  typedBy(WREN);
  expect(notedText(KEY)).toBe('64.');
  expect(notedKeys('fettle.typing/')).toEqual([KEY]);
  noteDone(KEY);
  expect(Object.keys(localStorage)).toEqual([]);
});

it('what was half typed before anybody signed in is whose who goes on with it', () => {
  noteText(KEY, '64.');
  typedBy(WREN);
  expect([notedText(KEY), notedKeys('fettle.')]).toEqual(['64.', [KEY]]);
  noteText(KEY, '64.0');
  expect(notedKeys('fettle.')).toEqual([KEY]);
  typedBy(TEASEL);
  expect(notedText(KEY)).toBeNull();
  typedBy(null);
  expect(notedText(KEY)).toBeNull();
});
