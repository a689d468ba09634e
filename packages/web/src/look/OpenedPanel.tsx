import { type ComponentProps, useEffect, useRef } from 'react';
import { Panel } from './Panel.js';

/**
 * A panel that opens beside what is looked at. The focus goes to it, and back to what opened it when it closes; a panel that was there when
 * the page came leaves the focus alone.
 */
export function OpenedPanel(props: ComponentProps<typeof Panel>) {
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    const opener = document.activeElement;
    const isOpenedByHand = opener instanceof HTMLElement && opener !== document.body;
    if (isOpenedByHand) panel.current?.focus({ preventScroll: false });
    return () => {
      // Whoever has gone on somewhere else in the meantime stays there.
      const { activeElement } = document;
      const isLost = activeElement === null || activeElement === document.body;
      if (isOpenedByHand && opener.isConnected && isLost) opener.focus();
    };
  }, []);
  return <Panel {...props} ref={panel} tabIndex={-1} />;
}
