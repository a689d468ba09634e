// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it } from 'vitest';
import { noteDone, notedKeys, notedText, noteText, setTypist } from './typingNotes.js';

const [WREN, TEASEL] = ['0b6f5c6e-0000-4000-8000-000000000001', '0b6f5c6e-0000-4000-8000-000000000002'];
const KEY = 'fettle.typing/engine/M1/bore';

beforeEach(() => localStorage.clear());
afterEach(() => setTypist(null));

it('what one has half typed on a shared device waits for them, and nobody else finishes it', () => {
  setTypist(WREN);
  noteText(KEY, '64.');
  setTypist(TEASEL);
  expect(notedText(KEY)).toBeNull();
  expect(notedKeys('fettle.typing/')).toEqual([]);
  noteText(KEY, '64.02');
  noteDone(KEY);
  setTypist(WREN);
  expect(notedText(KEY)).toBe('64.');
  expect(notedKeys('fettle.typing/')).toEqual([KEY]);
  noteDone(KEY);
  expect(Object.keys(localStorage)).toEqual([]);
});

it('what was half typed before anybody signed in is whose who goes on with it', () => {
  noteText(KEY, '64.');
  setTypist(WREN);
  expect([notedText(KEY), notedKeys('fettle.')]).toEqual(['64.', [KEY]]);
  noteText(KEY, '64.0');
  expect(notedKeys('fettle.')).toEqual([KEY]);
  setTypist(TEASEL);
  expect(notedText(KEY)).toBeNull();
  setTypist(null);
  expect(notedText(KEY)).toBeNull();
});
