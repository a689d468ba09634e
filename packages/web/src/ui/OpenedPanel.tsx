import { type ComponentProps, useEffect, useLayoutEffect, useRef } from 'react';
import { isFocusFree } from './keepFocus.js';
import { Panel } from './Panel.js';

/** Height of a panel that must be visible for it to count as in sight, px. */
const LEAST_SEEN = 160;

/**
 * A panel that opens beside what is looked at. The focus goes to it, and back to what opened it when it closes; a panel that was there when
 * the page came leaves the focus alone.
 */
export function OpenedPanel(props: ComponentProps<typeof Panel>) {
  const panel = useRef<HTMLElement>(null);
  const opener = useRef<HTMLElement>(null);
  useLayoutEffect(() => {
    const before = document.activeElement;
    if (!(before instanceof HTMLElement) || isFocusFree() || !panel.current) return;
    opener.current = before;
    panel.current.focus({ preventScroll: true });
    // Beside what is looked at nothing moves; below it, on a small screen, the panel is brought into sight.
    const { top } = panel.current.getBoundingClientRect();
    if (top < 0 || top > window.innerHeight - LEAST_SEEN) panel.current.scrollIntoView({ block: 'start' });
  }, []);
  // Once the panel is gone. Whoever has gone on somewhere else in the meantime stays there.
  useEffect(
    () => () => {
      if (opener.current?.isConnected && isFocusFree()) opener.current.focus();
    },
    [],
  );
  return <Panel {...props} ref={panel} tabIndex={-1} />;
}
