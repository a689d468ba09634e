import {
  cutText,
  eachFamily,
  FAMILY_TABLE,
  type Feature,
  familiesOf,
  type JobDocument,
  type JobShell,
  type KitAsked,
  type KnownMarks,
  kitQuestionOfJob,
  kitSchema,
  limitName,
  type Nanometres,
  numberOfLength,
  plainNumber,
  type Reading,
  type SeenMark,
} from '@fettle/core';
import { useState } from 'react';
import { newId } from '../base/newId.js';
import { useDrawer } from '../drawer/useDrawer.js';
import { useBy } from '../person/useBy.js';
import { csvOf } from '../spreadsheet/spreadsheet.js';
import { useDraft } from '../typing/useDraft.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { percent } from './ChanceBar.js';
import { type AskedAdvice, useKitAdvice } from './useKitAdvice.js';

const ENGINES = 10_000;

/** One kind of half of a kit, with how many there should be. */
export interface KitRow {
  readonly id: string;
  readonly shell: JobShell;
  readonly shelf: number;
  readonly order: number;
}

export interface Wishes {
  readonly families: 'main' | 'both';
  /** The chance wanted, per cent, as typed. */
  readonly target: string;
  readonly isMixed: boolean;
  readonly alike: Nanometres | null;
  /** True if bands are drawn as often as this workshop saw them; left out: evenly. */
  readonly isSeen?: boolean;
}

export interface Order extends AskedAdvice {
  /** Parts of this type that the workshop has seen with a mark; 0: none. */
  readonly seenParts: number;
  readonly wishes: Wishes;
  readonly set: (part: Partial<Wishes>) => void;
  readonly question: KitAsked;
  /** What the sheet lacks, in words. */
  readonly missing: readonly string[];
  readonly blocked: readonly string[];
  readonly shells: ReadonlyMap<string, JobShell>;
  readonly rows: readonly KitRow[];
  readonly hasPrices: boolean;
  /** The chance wanted, 0 to 1. */
  readonly wanted: number;
  readonly isTarget: boolean;
  /** True if it can be worked out: the question is whole, and the shelf is known. */
  readonly isReady: boolean;
  readonly workOut: () => void;
  readonly keepAsKit: () => Promise<void>;
  /** What is to be ordered, as CSV. */
  readonly csv: () => string;
  readonly told: string | null;
}

function missingWords(question: KitAsked): string[] {
  if (question.ok) return [];
  return question.missing.map((one) => {
    if (typeof one !== 'string') return `grades of the ${FAMILY_TABLE[one.gradesOf].words}`;
    return limitName(one).toLowerCase();
  });
}

/** How often each band was seen, by feature; marks whose band is not known any more tell nothing of sizes. */
export function seenMarks(features: readonly KnownMarks[]): Partial<Record<Feature, SeenMark[]>> {
  return Object.fromEntries(
    features.map(({ feature, bands }) => [
      feature,
      bands.flatMap(({ low, high, count }) => (low === null || high === null ? [] : [{ low, high, count }])),
    ]),
  );
}

/** What halves are wanted for. */
export interface OrderOf {
  /** Id of the engine, or of the type. */
  readonly id: string;
  /** The engine, as far as it is known. */
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  /** What it is called: an engine, or any engine of a type. */
  readonly name: string;
}

/** What should be on the shelf for an engine, as far as it is known: what is asked, and what was found. */
export function useOrder({ id, document, readings, name }: OrderOf): Order {
  const by = useBy();
  const { lines } = useDrawer();
  const { unit, rules } = document;
  const [draft, setDraft] = useDraft<Wishes>(`order.${id}`);
  const wishes = draft ?? {
    families: document.withRods ? 'both' : 'main',
    target: '95',
    isMixed: rules.mixedHalves,
    alike: rules.maxSpread,
  };
  const [told, setTold] = useState<string | null>(null);
  const asked = useKitAdvice();
  const { advice, ask } = asked;
  const { families, target, isMixed, alike } = wishes;
  const wanted = plainNumber(target) / 100;
  const isTarget = wanted > 0 && wanted <= 1;
  const spread = alike === null ? null : numberOfLength(alike, unit);
  const type = document.sheet?.name ?? '';
  const { currentData: known } = api.useKnownMarksQuery({ type }, { skip: type === '' });
  const seen = seenMarks(known?.features ?? []);
  const seenParts = Object.values(seen).reduce(
    (sum, marks) => sum + marks.reduce((all, { count }) => all + count, 0),
    0,
  );
  const question = kitQuestionOfJob(document, readings, {
    families: familiesOf({ withRods: families === 'both' }),
    rules: {
      mixedHalves: isMixed,
      acrossSeries: rules.acrossSeries,
      maxWallStep: numberOfLength(rules.maxWallStep, unit),
      thinnerHalf: rules.thinnerHalf,
      maxSpread: eachFamily(() => spread),
    },
    engines: ENGINES,
    seed: 1,
    drawer: lines ?? [],
    ...(wishes.isSeen && seenParts > 0 ? { seen } : {}),
  });
  const shells = question.ok ? question.shells : new Map<string, JobShell>();
  const rows = advice
    ? [...shells].map(([id, shell]) => ({
        id,
        shell,
        shelf: advice.shelf.find((one) => one.id === id)?.count ?? 0,
        order: advice.order.find((one) => one.id === id)?.count ?? 0,
      }))
    : [];
  const keepAsKit = async () => {
    const kit = kitSchema.parse({
      name: cutText(`${name}, ${target} %`, 80),
      note: `Chance ${percent(advice!.chance.chance)} of fitting`,
      halves: rows
        .filter(({ shelf }) => shelf > 0)
        .map(({ shell: { stock: _, line: __, ...half }, shelf }) => ({ ...half, count: shelf })),
    });
    try {
      await tell('putKit', { id: newId(), body: { version: 0, by, kit } });
      setTold(`“${kit.name}” is saved with the kits of workshop stock.`);
    } catch (error) {
      setTold(refusalInWords(error));
    }
  };
  const csv = () =>
    csvOf([
      ['Count', 'Shell', 'Family', 'Side', `Wall, ${unit}`],
      ...rows
        .filter(({ order }) => order > 0)
        .map(({ id, shell, order }) => [
          String(order),
          id,
          shell.family,
          shell.half,
          String(numberOfLength(shell.wall, unit)),
        ]),
    ]);
  return {
    ...asked,
    seenParts,
    wishes,
    set: (part) => setDraft((now) => ({ ...(now ?? wishes), ...part })),
    question,
    missing: missingWords(question),
    blocked: question.ok ? question.blocked : [],
    shells,
    rows,
    hasPrices: question.ok && question.question.shells.some(({ price }) => price > 0),
    wanted,
    isTarget,
    isReady: question.ok && isTarget && lines !== null,
    workOut: () => {
      setTold(null);
      if (question.ok) ask(question.question, wanted);
    },
    keepAsKit,
    csv,
    told,
  };
}
