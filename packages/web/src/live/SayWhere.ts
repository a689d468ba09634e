import type { Presence } from '@fettle/core';
import { useEffect, useState } from 'react';
import { useAppSelector } from '../base/store.js';
import { useBy } from '../person/useBy.js';
import { TAB } from '../wire/credentials.js';
import { tell } from '../wire/tell.js';

/** After so long at one place it is said, and then now and then again, ms. */
const AFTER_MS = 300;
const AGAIN_MS = 25_000;

/** The part along the shaft that the hand is at, wherever on the page that is; null for none. */
function usePartInHand(): string | null {
  const [part, setPart] = useState<string | null>(null);
  useEffect(() => {
    const look = ({ target }: FocusEvent) => {
      const at = target instanceof Element ? target.closest<HTMLElement>('[data-station]') : null;
      setPart(at?.dataset.station ?? null);
    };
    document.addEventListener('focusin', look);
    return () => document.removeEventListener('focusin', look);
  }, []);
  return part;
}

interface SayWhereProps {
  readonly engine: string;
  readonly stage: Presence['stage'];
}

/** Says to the others who have this engine open where one is; shows nothing, so that nothing is drawn anew when the hand moves on. */
export function SayWhere({ engine, stage }: SayWhereProps): null {
  const part = usePartInHand();
  const isLive = useAppSelector((state) => state.live.isLive);
  const by = useBy();
  useEffect(() => {
    if (!isLive) return;
    // That nobody hears it does no harm.
    const say = () => void tell('sayWhere', { body: { tab: TAB, engine, stage, part, by } }).catch(() => undefined);
    const first = setTimeout(say, AFTER_MS);
    const again = setInterval(say, AGAIN_MS);
    return () => {
      clearTimeout(first);
      clearInterval(again);
    };
  }, [isLive, engine, stage, part, by]);
  return null;
}
