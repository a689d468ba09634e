import { type FocusEvent, type KeyboardEvent, type RefObject, useLayoutEffect, useRef } from 'react';

/** Marks a control of a grid that shares its one stop of the Tab key with the others. */
export const STOP = { 'data-stop': '' } as const;

/** What a grid does to be one stop of the Tab key. */
export interface OneStop {
  readonly onFocus: (event: FocusEvent<HTMLElement>) => void;
  readonly onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
}

function stopsOf(grid: HTMLElement | null): HTMLElement[] {
  return [...(grid?.querySelectorAll<HTMLElement>('[data-stop]') ?? [])];
}

function only(stop: HTMLElement | undefined, stops: readonly HTMLElement[]): void {
  for (const one of stops) one.tabIndex = one === stop ? 0 : -1;
}

function isEmptyBox(stop: HTMLElement): boolean {
  return stop instanceof HTMLInputElement && stop.value === '';
}

/**
 * Makes the marked controls of a grid one stop of the Tab key: the one that had the focus last; before that the first empty box, or the
 * first of them. Boxes see to the arrow keys themselves; between buttons this does, and Home and End.
 */
export function useOneStop(grid: RefObject<HTMLElement | null>): OneStop {
  const last = useRef<HTMLElement | null>(null);
  // After each drawing: controls come and go with what is known.
  useLayoutEffect(() => {
    const stops = stopsOf(grid.current);
    only(stops.find((stop) => stop === last.current) ?? stops.find(isEmptyBox) ?? stops[0], stops);
  });
  return {
    onFocus: ({ target }) => {
      if (!target.matches('[data-stop]')) return;
      last.current = target;
      only(target, stopsOf(grid.current));
    },
    onKeyDown: (event) => {
      const { target, key } = event;
      if (!(target instanceof HTMLElement) || target instanceof HTMLInputElement || !target.matches('[data-stop]'))
        return;
      const stops = stopsOf(grid.current);
      const at = stops.indexOf(target);
      const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: stops.length - 1 }[key];
      if (to === undefined || !stops[to]) return;
      event.preventDefault();
      stops[to].focus();
    },
  };
}
