// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { expect, it } from 'vitest';
import { STOP, useOneStop } from './useOneStop.js';

function Grid({ names }: { readonly names: readonly string[] }) {
  const grid = useRef<HTMLDivElement>(null);
  const stop = useOneStop(grid);
  return (
    <div ref={grid} {...stop}>
      {names.map((name) => (
        <button key={name} type="button" {...STOP}>
          {name}
        </button>
      ))}
      <input aria-label="full" defaultValue="64.010" {...STOP} />
      <input aria-label="empty" {...STOP} />
    </div>
  );
}

const stops = () =>
  [...document.querySelectorAll<HTMLElement>('[data-stop]')].flatMap((one) =>
    one.tabIndex === 0 ? [one.textContent || one.getAttribute('aria-label')] : [],
  );

it('is one stop of the Tab key: the first empty box, then whatever had the focus last', () => {
  const { rerender } = render(<Grid names={['M1', 'M2', 'M3']} />);
  expect(stops()).toEqual(['empty']);
  screen.getByRole('button', { name: 'M2' }).focus();
  expect(stops()).toEqual(['M2']);
  // What comes later is no stop of its own; where the stop itself goes, another one is found.
  rerender(<Grid names={['M1', 'M2', 'M3', 'M4']} />);
  expect(stops()).toEqual(['M2']);
  rerender(<Grid names={['M1', 'M3']} />);
  expect(stops()).toEqual(['empty']);
});

it('goes between its buttons by arrows, Home and End, and leaves boxes to themselves', () => {
  render(<Grid names={['M1', 'M2']} />);
  const [first, second] = screen.getAllByRole('button');
  first!.focus();
  fireEvent.keyDown(first!, { key: 'ArrowRight' });
  expect(document.activeElement).toBe(second);
  fireEvent.keyDown(second!, { key: 'Home' });
  expect(document.activeElement).toBe(first);
  fireEvent.keyDown(first!, { key: 'ArrowLeft' });
  expect(document.activeElement).toBe(first);
  fireEvent.keyDown(first!, { key: 'End' });
  const empty = screen.getByLabelText('empty');
  expect(document.activeElement).toBe(empty);
  fireEvent.keyDown(empty, { key: 'Home' });
  expect(document.activeElement).toBe(empty);
});
