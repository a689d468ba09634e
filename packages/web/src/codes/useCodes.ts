import {
  type CodedStation,
  codedFeatures,
  codedStations,
  type DecodedRow,
  eachFeature,
  FEATURE_TABLE,
  type Feature,
  heldAsCoded,
  type JobDocument,
  jobDocumentSchema,
  type MeasuredPart,
  mainStations,
  measuredParts,
  partName,
  pinnedRods,
  placedRods,
  rodCount,
  rodStations,
  rowLayout,
} from '@fettle/core';
import { useState } from 'react';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import type { KeptText } from '../ui/useKeptText.js';
import { decodedText } from './decodedText.js';
import { type MarkTexts, withTexts } from './markTexts.js';
import { useMarkTexts } from './useMarkTexts.js';

type End = 'front' | 'rear';
type Rod = JobDocument['rods'][string];

export interface Codes {
  /** The features whose marks the data sheet knows. */
  readonly features: readonly Feature[];
  readonly kept: Readonly<Record<Feature, KeptText>>;
  readonly firstOf: (feature: Feature) => End;
  readonly commit: (feature: Feature, text: string, first?: End) => void;
  /** The document with what is being typed. */
  readonly shown: JobDocument;
  readonly decoded: ReadonlyMap<Feature, DecodedRow | null>;
  readonly coded: ReadonlyMap<string, CodedStation>;
  /** Per pin the rod that is placed on it. */
  readonly placed: Readonly<Record<string, number>>;
  readonly parts: Readonly<Record<Feature, readonly MeasuredPart[]>>;
  /** Stations whose parts are not what their marks say, or are outside the data sheet, and which of the two. */
  readonly contradicted: ReadonlyMap<string, 'not-as-marked' | 'blocked'>;
  /** The marks as typed, by the names of their parts. */
  readonly marksOf: (feature: Feature) => ReadonlyMap<string, string>;
  /** Holds what the table calls for. @returns true if it could; what is lacking is then told */
  readonly hold: () => boolean;
  readonly lacking: readonly string[];
  /** Puts each rod on the pin of its own number; null once any rod is on a pin. */
  readonly placeRods: (() => void) | null;
}

/** The marks of an engine as they are being typed, with what the data sheet's table makes of them. */
export function useCodes(job: OpenJob): Codes {
  const change = useChangeDocument(job);
  const { document, readings } = job;
  const features = codedFeatures(document);
  const [lacking, setLacking] = useState<readonly string[]>([]);
  const kept = useMarkTexts(job.id, document);
  const firstOf = (feature: Feature) => rowLayout(document, feature).first;
  const texts: MarkTexts = Object.fromEntries(
    features.flatMap((feature) => {
      const { text } = kept[feature];
      return text.trim() === '' ? [] : [[feature, { text, first: firstOf(feature) }]];
    }),
  );
  const shown = withTexts(document, texts);
  const commit = (feature: Feature, text: string, first = firstOf(feature)) => {
    const row = { [feature]: { text: text.trim(), first } };
    // Until every rod has its mark the row stays in its box.
    if (FEATURE_TABLE[feature].marked === 'each' && !decodedText(document, feature, text, first)?.ok) return;
    kept[feature].settled(text.trim());
    change((old) => jobDocumentSchema.parse({ ...withTexts(old, row), marks: { ...old.marks, ...row } }));
  };
  const placed = { ...pinnedRods(shown), ...placedRods(document.choice?.stations ?? {}) };
  const isUnplaced = shown.withRods && Object.keys(placed).length === 0 && features.includes('bigEnd');
  const coded = codedStations(shown, placed);
  const decoded = new Map(
    features.map((feature) => [feature, decodedText(document, feature, kept[feature].text, firstOf(feature))]),
  );
  // Where a part is not what its mark says, what the table says of that mark does not hold.
  const contradicted = new Map<string, 'not-as-marked' | 'blocked'>();
  for (const station of [...mainStations(shown, readings), ...rodStations(shown, readings, placed)]) {
    if (station.disagreements.length > 0) contradicted.set(station.id, 'not-as-marked');
    else if (station.findings.length > 0) contradicted.set(station.id, 'blocked');
  }
  return {
    features,
    kept,
    firstOf,
    commit,
    shown,
    decoded,
    coded,
    placed,
    parts: eachFeature((feature) => measuredParts(shown, readings, feature)),
    contradicted,
    marksOf: (feature) =>
      new Map((decoded.get(feature)?.marks ?? []).map(({ station, typed }) => [partName(feature, station), typed])),
    hold: () => {
      const held = heldAsCoded(document, new Map([...coded].filter(([id]) => !contradicted.has(id))));
      setLacking(held.ok ? [] : held.missing);
      if (held.ok) change((old) => ({ ...old, wishes: held.wishes }), 'locked the table’s grades');
      return held.ok;
    },
    lacking,
    placeRods: isUnplaced
      ? () =>
          change((old) => {
            const numbers = Array.from({ length: rodCount(old.layout) }, (_, at) => at + 1);
            const rods = numbers.map((number): [string, Rod] => {
              const rod = old.rods[String(number)] ?? { mark: '', pin: null };
              return [String(number), { ...rod, pin: rod.pin ?? number }];
            });
            return { ...old, rods: Object.fromEntries(rods) };
          }, 'each rod on its own pin')
      : null,
  };
}
