// @vitest-environment jsdom
import { cleanup, fireEvent, render } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { areShortcutsOn, listenForShortcuts, shortcutsHere, turnShortcuts, useShortcut } from './shortcuts.js';

function Page({ act, panel }: { act: (() => void) | null; panel?: () => void }) {
  useShortcut('n', 'Next thing to do', act);
  return (
    <>
      <input aria-label="box" />
      <button type="button">button</button>
      {panel && <Panel act={panel} />}
    </>
  );
}

function Panel({ act }: { act: () => void }) {
  useShortcut('n', 'Next pair', act);
  return null;
}

let stop: () => void;
beforeEach(() => {
  localStorage.clear();
  stop = listenForShortcuts();
});
afterEach(() => {
  cleanup();
  stop();
});

describe('single keys', () => {
  it('do something outside boxes only, once a press, and not together with Ctrl', () => {
    const act = vi.fn();
    const { getByLabelText, getByRole } = render(<Page act={act} />);
    fireEvent.keyDown(getByLabelText('box'), { key: 'n' });
    fireEvent.keyDown(document.body, { key: 'n', ctrlKey: true });
    fireEvent.keyDown(document.body, { key: 'n', repeat: true });
    expect(act).not.toHaveBeenCalled();
    fireEvent.keyDown(document.body, { key: 'n' });
    fireEvent.keyDown(getByRole('button'), { key: 'n' });
    expect(act).toHaveBeenCalledTimes(2);
  });

  it('can be turned off on a device, and on again', () => {
    const act = vi.fn();
    render(<Page act={act} />);
    turnShortcuts(false);
    fireEvent.keyDown(document.body, { key: 'n' });
    expect([act.mock.calls.length, areShortcutsOn()]).toEqual([0, false]);
    turnShortcuts(true);
    fireEvent.keyDown(document.body, { key: 'n' });
    expect([act.mock.calls.length, areShortcutsOn()]).toEqual([1, true]);
  });

  it('belong to what is in view: the panel before the page, and nothing once it has gone', () => {
    const [page, panel] = [vi.fn(), vi.fn()];
    const { rerender, unmount } = render(<Page act={page} />);
    rerender(<Page act={page} panel={panel} />);
    expect(shortcutsHere().map(({ words }) => words)).toEqual(['Next pair']);
    fireEvent.keyDown(document.body, { key: 'n' });
    expect([page.mock.calls.length, panel.mock.calls.length]).toEqual([0, 1]);
    rerender(<Page act={page} />);
    fireEvent.keyDown(document.body, { key: 'n' });
    expect(page).toHaveBeenCalledTimes(1);
    rerender(<Page act={null} />);
    expect(shortcutsHere()).toEqual([]);
    unmount();
    fireEvent.keyDown(document.body, { key: 'n' });
    expect(page).toHaveBeenCalledTimes(1);
  });
});
