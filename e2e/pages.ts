import { STAGES } from '@fettle/core';
import type { Page } from '@playwright/test';
import { ASSEMBLED_SEDGE_4, BORE_GAUGE, MARKED_SEDGE_4, SAMPHIRE_8, SEDGE_TYPE, THIRD_BUILD } from './engines.js';

/** An engine with joint shims: only it has the stage Crush. */
export const WITH_SHIMS = 'b0992000-0009-4000-8000-000000000006';
const ENGINE_PAGES = [...STAGES, 'history', 'order', 'labels', 'grinding'];
/** The address of every page, of engines that have something on each. */
export const PAGES = [
  '/',
  '/new',
  '/drawer',
  '/together',
  '/types',
  ...['sheet', 'mains', 'rods', 'order', 'compare'].map((part) => `/types/${SEDGE_TYPE}/${part}`),
  '/instruments',
  ...['offsets', 'marks', 'walls', 'use', 'readers', 'trust', 'engines'].map((part) => `/known/${part}`),
  `/instruments/${BORE_GAUGE}`,
  '/sum',
  '/guide/select-shells',
  ...ENGINE_PAGES.map(
    (part) =>
      `/engines/${part === 'codes' ? MARKED_SEDGE_4 : part === 'crush' ? WITH_SHIMS : part === 'data' ? SAMPHIRE_8 : part === 'cameApart' ? THIRD_BUILD : ASSEMBLED_SEDGE_4}/${part}`,
  ),
];

/** Texts that are cut off, and figures that do not fit their boxes. */
export function cutTexts(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const isHidden = (element: Element) =>
      element.closest('.visually-hidden, [aria-hidden="true"], .word, .name, svg, footer') !== null ||
      !(element as HTMLElement).checkVisibility();
    const hasText = (element: Element) =>
      [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim() !== '');
    const cut = [...document.querySelectorAll<HTMLElement>('main *, header *')].filter((element) => {
      if (!hasText(element) || isHidden(element)) return false;
      const { overflowX, overflowY, position, clipPath } = getComputedStyle(element);
      if (position === 'absolute' && clipPath !== 'none') return false;
      const isClipped = (overflow: string) => overflow === 'hidden' || overflow === 'clip';
      return (
        (isClipped(overflowX) && element.scrollWidth > element.clientWidth + 1) ||
        (isClipped(overflowY) && element.scrollHeight > element.clientHeight + 3)
      );
    });
    const boxes = [
      ...document.querySelectorAll<HTMLInputElement>('input[inputmode="decimal"], input[data-reading]'),
    ].filter((box) => box.checkVisibility() && box.scrollWidth > box.clientWidth + 1);
    return [
      ...cut.map((element) => `“${element.textContent?.trim().slice(0, 60)}”`),
      ...boxes.map((box) => `box “${box.getAttribute('aria-label') ?? box.name}”: ${box.value || box.placeholder}`),
    ];
  });
}

/** The text spacing that a reader may ask for, WCAG 2.2, 1.4.12 (cited from memory). */
export const SPACED =
  '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; } p { margin-bottom: 2em !important; }';

/** Controls too small to be hit: 24 px each way, but for links within a sentence (WCAG 2.2, 2.5.8; cited from memory). */
export function smallTargets(page: Page, least: number, where: string): Promise<string[]> {
  return page.evaluate(
    ([least, where]) =>
      [
        ...document.querySelectorAll<HTMLElement>(
          `${where} :is(a[href], button, input, select, summary, [role="button"])`,
        ),
      ]
        .filter(
          (one) =>
            one.checkVisibility() && !one.closest('.visually-hidden, [aria-hidden="true"]') && one.tabIndex >= -1,
        )
        .filter((one) => !(one.tagName === 'A' && getComputedStyle(one).display === 'inline'))
        .flatMap((one) => {
          // A box in its own label is hit by hitting the label.
          const { width, height } = (
            one.matches('input[type="checkbox"], input[type="radio"]') && one.closest('label')
              ? one.closest('label')!
              : one
          ).getBoundingClientRect();
          const isClipped = width <= 1 || height <= 1;
          return isClipped || (width >= least - 0.5 && height >= least - 0.5)
            ? []
            : [
                `${Math.round(width)} × ${Math.round(height)}: ${one.getAttribute('aria-label') ?? one.textContent?.slice(0, 40)}`,
              ];
        }),
    [least, where] as const,
  );
}

/** Names of controls that stand for two different things on one page. */
export function alikeNames(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const names = [...document.querySelectorAll<HTMLElement>('main :is(button, input, select, textarea)')]
      .filter(
        (one) =>
          one.checkVisibility() && !one.closest('[aria-hidden="true"]') && (one as HTMLInputElement).type !== 'hidden',
      )
      .map((one) => {
        const labels = [...((one as HTMLInputElement).labels ?? [])].map((label) => label.textContent ?? '').join(' ');
        const by = (one.getAttribute('aria-labelledby') ?? '')
          .split(' ')
          .map((id) => (id === '' ? '' : (document.getElementById(id)?.textContent ?? '')))
          .join(' ')
          .trim();
        const name =
          one.getAttribute('aria-label') ?? (by || labels || (one.tagName === 'BUTTON' ? one.textContent : '') || '');
        // Fields of a group are told apart by it.
        const group =
          one
            .closest('fieldset, [role="group"], section[aria-label], article[aria-label]')
            ?.getAttribute('aria-label') ?? '';
        return `${group} / ${name.trim()}`;
      });
    return [...new Set(names.filter((name, at) => names.indexOf(name) !== at))];
  });
}
