// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { SteadyButton } from './Button.js';

afterEach(cleanup);

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
