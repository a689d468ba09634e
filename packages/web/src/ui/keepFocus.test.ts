// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test } from 'vitest';
import { isFocusFree, keepFocus } from './keepFocus.js';

let end: () => void;
beforeEach(() => {
  end = keepFocus();
});
afterEach(() => {
  end();
  document.body.replaceChildren();
});

/** Lets the observer see what was changed. */
const seen = () => new Promise((done) => setTimeout(done));

test('a control that goes away leaves its focus to the nearest place that stays, until that is left', async () => {
  document.body.innerHTML =
    '<main tabindex="-1"><section id="panel"><fieldset id="ask"><button>Cancel</button></fieldset><button id="other">Other</button></section></main>';
  const panel = document.querySelector<HTMLElement>('#panel')!;
  document.querySelector('button')!.focus();
  document.querySelector('#ask')!.remove();
  await seen();
  expect(document.activeElement).toBe(panel);
  expect(isFocusFree()).toBe(true);

  document.querySelector<HTMLElement>('#other')!.focus();
  expect(panel.hasAttribute('tabindex')).toBe(false);
  expect(isFocusFree()).toBe(false);
});

test('who has the focus elsewhere by then keeps it, and what is only left keeps nothing', async () => {
  document.body.innerHTML = '<main><section><button id="gone">Gone</button></section><input /></main>';
  const gone = document.querySelector<HTMLElement>('#gone')!;
  const input = document.querySelector('input')!;
  gone.focus();
  gone.remove();
  input.focus();
  await seen();
  expect(document.activeElement).toBe(input);

  input.blur();
  document.body.append(document.createElement('p'));
  await seen();
  expect(document.activeElement).toBe(document.body);
});
