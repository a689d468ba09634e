import {
  type Family,
  type GrindingAnswer,
  grindingPlan,
  type JobDocument,
  type JournalSize,
  journalsToPlan,
  MOST_SIZES,
  parseLength,
  plainNumber,
  type Reading,
} from '@fettle/core';
import { useMemo } from 'react';
import { useDrawer } from '../drawer/useDrawer.js';
import { useDraft } from '../typing/useDraft.js';

/** What is typed for a plan, as it was typed. */
export interface GrindingText {
  readonly areAlike: boolean;
  readonly perJournal: string;
  readonly setUp: string;
  readonly cleanUp: string;
  readonly hardened: string;
  /** By size: pairs on the shelf, and the price of one more pair; empty: as the stock says. */
  readonly pairs: Readonly<Record<string, string>>;
  readonly prices: Readonly<Record<string, string>>;
}

/** Metal that comes off so that a journal cleans up, on the diameter: a setting of ours, to be asked of the grinder. */
const USUAL_CLEAN_UP = { mm: '0.02', in: '0.001' } as const;

export interface Grinding {
  readonly text: GrindingText;
  readonly set: (part: Partial<GrindingText>) => void;
  /** What is wrong with a box, by its name; a size's price is `price NAME`, its pairs `pairs NAME`. */
  readonly faults: ReadonlyMap<string, string>;
  readonly unread: readonly string[];
  /** The sizes with what was typed of them, or what the stock says. */
  readonly sizes: readonly JournalSize[];
  /** Null while a journal is not read, or a box is wrong. */
  readonly answer: GrindingAnswer | null;
}

/** A grinding plan for the mains or the pins: what is typed stays on this device. */
export function useGrinding(
  {
    id,
    document,
    readings,
  }: { readonly id: string; readonly document: JobDocument; readonly readings: readonly Reading[] },
  family: Family,
): Grinding {
  const { unit } = document;
  const { lines } = useDrawer();
  const [draft, setDraft] = useDraft<GrindingText>(`grinding.${id}.${family}`);
  const blank: GrindingText = {
    areAlike: true,
    perJournal: '',
    setUp: '',
    cleanUp: USUAL_CLEAN_UP[unit],
    hardened: '',
    pairs: {},
    prices: {},
  };
  const text = draft ?? blank;
  const known = useMemo(
    () => journalsToPlan(document, readings, family, lines ?? []),
    [document, readings, family, lines],
  );
  const read = useMemo(() => {
    const faults = new Map<string, string>();
    const price = (name: string, typed: string, otherwise: number | null) => {
      if (typed.trim() === '') return otherwise;
      const value = plainNumber(typed);
      if (value >= 0 && value <= 1e6) return value;
      faults.set(name, 'Enter a price of 0 or more, or leave blank.');
      return otherwise;
    };
    const length = (name: string, typed: string) => {
      if (typed.trim() === '') return null;
      const parsed = parseLength(typed, { unit, signed: 'sign' });
      if (parsed.ok && parsed.nm >= 0) return parsed.nm;
      faults.set(name, parsed.ok ? 'Enter 0 or more.' : parsed.message);
      return null;
    };
    const sizes = known.sizes.map((size): JournalSize => {
      const typed = text.pairs[size.name] ?? '';
      const isCount = /^\d{1,4}$/u.test(typed.trim());
      if (typed.trim() !== '' && !isCount) faults.set(`pairs ${size.name}`, 'Enter a whole number, or leave blank.');
      return {
        ...size,
        onShelf: isCount ? Number(typed) : size.onShelf,
        price: price(`price ${size.name}`, text.prices[size.name] ?? '', size.price),
      };
    });
    const asked = {
      journals: known.journals,
      sizes,
      areAlike: text.areAlike,
      perJournal: price('perJournal', text.perJournal, 0)!,
      setUp: price('setUp', text.setUp, 0)!,
      cleanUp: length('cleanUp', text.cleanUp) ?? 0,
      hardened: length('hardened', text.hardened),
    };
    return { faults, asked };
  }, [known, text, unit]);
  const isReady =
    read.faults.size === 0 && known.unread.length === 0 && known.sizes.length > 0 && known.sizes.length <= MOST_SIZES;
  return {
    text,
    set: (part) => setDraft((now) => ({ ...(now ?? blank), ...part })),
    faults: read.faults,
    unread: known.unread,
    sizes: read.asked.sizes,
    answer: useMemo(() => (isReady ? grindingPlan(read.asked) : null), [isReady, read]),
  };
}
