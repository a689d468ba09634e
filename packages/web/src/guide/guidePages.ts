import { STAGES, type Stage, stageName } from '@fettle/core';

/** The pages of the handbook as they were written: `docs/guide/`. */
const TEXTS: Readonly<Record<string, string>> = import.meta.glob('../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});

/**
 * What the page of a stage is called in the handbook.
 *
 * @example guidePage('choose') // 'select-shells'
 */
export function guidePage(stage: Stage): string {
  return stageName(stage).toLowerCase().replaceAll(' ', '-');
}

/** The stage of a page; null for none. */
export function stageOfPage(page: string): Stage | null {
  return STAGES.find((stage) => guidePage(stage) === page) ?? null;
}

/** The text of a stage's page, Markdown. @throws Error where there is none: each stage has one */
export function guideText(stage: Stage): string {
  const text = TEXTS[`../../../../docs/guide/${guidePage(stage)}.md`];
  if (text === undefined) throw new Error(`docs/guide has no page for ${stageName(stage)}`);
  return text;
}
