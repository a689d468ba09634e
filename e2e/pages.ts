import { STAGES } from '@fettle/core';
import type { Page } from '@playwright/test';
import { ASSEMBLED_SEDGE_4, MARKED_SEDGE_4, SAMPHIRE_8, SEDGE_TYPE } from './engines.js';

/** An engine with joint shims: only it has the stage Crush. */
export const WITH_SHIMS = 'b0992000-0009-4000-8000-000000000006';
const ENGINE_PAGES = [...STAGES, 'history', 'order', 'labels'];
/** The address of every page, of engines that have something on each. */
export const PAGES = [
  '/',
  '/new',
  '/drawer',
  '/together',
  '/types',
  ...['sheet', 'mains', 'rods', 'order', 'compare'].map((part) => `/types/${SEDGE_TYPE}/${part}`),
  '/sum',
  '/guide/select-shells',
  ...ENGINE_PAGES.map(
    (part) =>
      `/engines/${part === 'codes' ? MARKED_SEDGE_4 : part === 'crush' ? WITH_SHIMS : part === 'data' ? SAMPHIRE_8 : ASSEMBLED_SEDGE_4}/${part}`,
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
