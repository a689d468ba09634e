// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { Button, SteadyButton } from './Button.js';

test('a press whose button has come to say something else before it is let go does nothing', () => {
  const cancel = vi.fn();
  const fit = vi.fn();
  const { rerender } = render(<SteadyButton onPress={cancel}>Cancel</SteadyButton>);
  const button = screen.getByRole('button');
  const down = () => fireEvent.keyDown(button, { key: 'Enter' });
  const up = () => fireEvent.keyUp(button, { key: 'Enter' });

  down();
  up();
  expect(cancel).toHaveBeenCalledTimes(1);

  down();
  rerender(<SteadyButton onPress={fit}>Fit them</SteadyButton>);
  up();
  expect(cancel).toHaveBeenCalledTimes(1);
  expect(fit).not.toHaveBeenCalled();

  down();
  up();
  expect(fit).toHaveBeenCalledTimes(1);
});

test('a button that becomes disabled keeps the focus, says so, and does nothing, submitting included', () => {
  const act = vi.fn();
  const submit = vi.fn((event: { preventDefault: () => void }) => event.preventDefault());
  const shown = (isDisabled: boolean) => (
    <form onSubmit={submit}>
      <Button type="submit" isDisabled={isDisabled} onPress={act}>
        Sign
      </Button>
    </form>
  );
  const { rerender } = render(shown(false));
  const button = screen.getByRole('button');
  button.focus();
  fireEvent.click(button);
  expect(act).toHaveBeenCalledTimes(1);
  expect(submit).toHaveBeenCalledTimes(1);

  rerender(shown(true));
  expect(document.activeElement).toBe(button);
  expect(button.getAttribute('aria-disabled')).toBe('true');
  fireEvent.click(button);
  expect(act).toHaveBeenCalledTimes(1);
  expect(submit).toHaveBeenCalledTimes(1);

  rerender(shown(false));
  expect(button.hasAttribute('aria-disabled')).toBe(false);
  fireEvent.click(button);
  expect(act).toHaveBeenCalledTimes(2);
});
