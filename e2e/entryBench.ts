/** npm run bench entry: from leaving a cell to the figure being kept on the device, and to the frame that shows what came of it. */
import { chromium, request } from '@playwright/test';
import { chromiumOptions } from './chromium.js';
import { putOnBench, reedDocument } from './engines.js';

const origin = process.argv[2]!;
const MOST_MS = 50;
/** Twenty-five keys a second: faster than a keypad is typed on. */
const BETWEEN_KEYS_MS = 40;

const api = await request.newContext({ baseURL: origin });
const bolt = ['front', 'front-90', 'rear', 'rear-90'] as const;
const four = ['front-0', 'front-90', 'rear-0', 'rear-90'] as const;
const slots = { mainBore: [...bolt], mainJournal: [...four], bigEnd: [...bolt], pin: [...four] };
const blank = reedDocument('Reed 6 typed at full speed', 5, { withRods: true });
const id = await putOnBench(api, { ...blank, measuring: { ...blank.measuring, slots } });

const browser = await chromium.launch(chromiumOptions());
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();

/**
 * Watches for Enter, for what is kept on the device after it, and for the frame that follows. As text: what builds this program adds names to
 * functions that the page does not know.
 */
const WATCH = `
  const times = { left: 0, entered: 0, kept: [], shown: [], redrawn: [], bare: [] };
  window.times = times;
  const write = Storage.prototype.setItem;
  Storage.prototype.setItem = function (key, value) {
    write.call(this, key, value);
    if (times.left > 0 && key.startsWith('fettle.waiting.')) {
      times.kept.push(performance.now() - times.left);
      times.left = 0;
    }
  };
  const afterPaint = (done) => requestAnimationFrame(() => setTimeout(done));
  addEventListener('keydown', (event) => {
    if (event.key !== 'Enter') return;
    const start = performance.now();
    times.left = start;
    times.entered = start;
    afterPaint(() => times.shown.push(performance.now() - start));
  }, true);
  // The plan below the figures: the first frame in which it is another one.
  new MutationObserver((changes) => {
    const isPlan = ({ target }) => (target.parentElement ?? target).closest('[aria-label="What these sizes lead to"]') !== null;
    if (times.entered === 0 || !changes.some(isPlan)) return;
    const start = times.entered;
    times.entered = 0;
    afterPaint(() => times.redrawn.push(performance.now() - start));
  }).observe(document, { subtree: true, childList: true, characterData: true });
  window.paint = () => new Promise((resolve) => {
    const start = performance.now();
    document.body.style.outlineColor = 'rgb(0 0 ' + (times.bare.length % 255) + ')';
    afterPaint(() => { times.bare.push(performance.now() - start); resolve(); });
  });
`;
await page.addInitScript({ content: WATCH });

interface Times {
  readonly kept: number[];
  readonly shown: number[];
  readonly redrawn: number[];
  readonly bare: number[];
}

const kept: number[] = [];
const shown: number[] = [];
const redrawn: number[] = [];
const done = new Set<string>();
const bare: number[] = [];
for (const [stage, label, size, count] of [
  ['bores', 'M1 main bore front plane, mm', 64.01, 20],
  ['journals', 'M1 main journal front, 0°, mm', 59.98, 20],
  ['bigEnds', 'R1 big end front plane, mm', 52.01, 16],
  ['pins', 'P1 crankpin front, 0°, mm', 47.98, 16],
  // Once more, when everything is known: now each figure changes the plan.
  ['bores', 'M1 main bore front plane, mm', 64.009, 20],
  ['journals', 'M1 main journal front, 0°, mm', 59.979, 20],
] as const) {
  const isAgain = done.has(stage);
  done.add(stage);
  await page.goto(`${origin}/engines/${id}/${stage}`);
  // The other pages are fetched in the background after the first.
  await page.waitForLoadState('networkidle');
  await page.getByLabel(label).focus();
  for (let at = 0; at < count; at += 1) {
    if (isAgain) await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type((size + (at % 7) / 1000).toFixed(3), { delay: BETWEEN_KEYS_MS });
    await page.keyboard.press('Enter');
  }
  for (let at = 0; at < 30; at += 1) await page.evaluate('paint()');
  const times = (await page.evaluate('times')) as Times;
  kept.push(...times.kept);
  shown.push(...times.shown);
  redrawn.push(...times.redrawn);
  bare.push(...times.bare);
}
await browser.close();
await api.dispose();

const share = (list: readonly number[], part: number) => {
  const sorted = [...list].sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? Number.NaN;
};
const told = (name: string, list: readonly number[]) =>
  `  ${name.padEnd(34)} median ${share(list, 0.5).toFixed(1)} ms, p95 ${share(list, 0.95).toFixed(1)} ms, worst ${share(list, 1).toFixed(1)} ms (${list.length})`;
console.log(
  [
    `entry: 72 readings of five mains and four rods by keypad alone, ${1000 / BETWEEN_KEYS_MS} keys a second (aim: p95 at most ${MOST_MS} ms)`,
    told('leaving a cell to kept here', kept),
    told('leaving a cell to its frame', shown),
    told('leaving a cell to the plan redrawn', redrawn),
    told('a bare paint, for reference', bare),
    `  a cell’s frame takes ${(share(shown, 0.95) / share(bare, 0.95)).toFixed(1)} times a bare paint (p95 each)`,
  ].join('\n'),
);
