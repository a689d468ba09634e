import { eachFeature, FEATURE_TABLE, type Feature, type JobDocument } from '@fettle/core';
import { type KeptText, useKeptText } from '../ui/useKeptText.js';
import { rodRow } from './markTexts.js';

/** Every feature's row of marks as it is being typed; the marks that parts carry themselves are typed as one row too. */
export function useMarkTexts(job: string, document: JobDocument): Readonly<Record<Feature, KeptText>> {
  // One box a feature, always the same ones in the same order.
  return eachFeature((feature) => {
    const isEach = FEATURE_TABLE[feature].marked === 'each';
    const stored = isEach ? rodRow(document) : (document.marks[feature]?.text ?? '');
    // biome-ignore lint/correctness/useHookAtTopLevel: called for every feature at each rendering
    return useKeptText({ of: job, part: feature, field: 'marks' }, stored);
  });
}
