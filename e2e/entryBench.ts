/** npm run bench entry: from leaving a cell to the figure being kept on the device, and to the frame that shows what came of it. */
import { stageName } from '@fettle/core';
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
  const times = { left: 0, entered: 0, enters: [], bareKeys: [], kept: [], told: [], bareTold: [], shown: [], redrawn: [], bare: [], work: [] };
  window.times = times;
  const write = Storage.prototype.setItem;
  Storage.prototype.setItem = function (key, value) {
    write.call(this, key, value);
    if (times.left > 0 && key.startsWith('fettle.waiting.')) {
      times.kept.push(performance.now() - times.left);
      times.left = 0;
    }
  };
  // A message comes right after the frame; a timer would wait behind what is done for the next key.
  const frames = [];
  const channel = new MessageChannel();
  channel.port1.onmessage = () => frames.shift()();
  const afterPaint = (done) => requestAnimationFrame(() => {
    frames.push(done);
    channel.port2.postMessage(null);
  });
  // The same as the browser itself tells it, to the next 8 ms: until the frame is on the screen.
  new PerformanceObserver((list) => {
    for (const { name, duration, startTime } of list.getEntries()) {
      if (name !== 'keydown') continue;
      if (times.enters.some((at) => Math.abs(at - startTime) < 0.5)) times.told.push(duration);
      if (times.bareKeys.some((at) => Math.abs(at - startTime) < 0.5)) times.bareTold.push(duration);
    }
  }).observe({ type: 'event', durationThreshold: 16, buffered: true });
  addEventListener('keydown', (event) => {
    if (event.key === 'F9') {
      times.bareKeys.push(event.timeStamp);
      document.body.style.outlineColor = 'rgb(0 ' + (times.bareKeys.length % 255) + ' 0)';
    }
    if (event.key !== 'Enter') return;
    const start = performance.now();
    times.left = start;
    times.entered = start;
    times.enters.push(event.timeStamp);
    afterPaint(() => times.shown.push(performance.now() - start));
  }, true);
  // The plan below the figures: the first frame in which it is there, or is another one.
  const plan = '[aria-label="What these sizes lead to"]';
  new MutationObserver((changes) => {
    const isPlan = ({ target, addedNodes }) =>
      (target.parentElement ?? target).closest(plan) !== null || [...addedNodes].some((node) => node.matches?.(plan));
    if (times.entered === 0 || !changes.some(isPlan)) return;
    const start = times.entered;
    times.entered = 0;
    afterPaint(() => times.redrawn.push(performance.now() - start));
  }).observe(document, { subtree: true, childList: true, characterData: true });
  // A fixed piece of script, to tell a slow machine from a slow page.
  window.work = () => {
    const start = performance.now();
    let sum = 0;
    for (let at = 0; at < 3e6; at += 1) sum = (sum * 31 + at) % 1000003;
    times.work.push(performance.now() - start);
    return sum;
  };
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
  readonly told: number[];
  readonly redrawn: number[];
  readonly bare: number[];
  readonly bareTold: number[];
  readonly work: number[];
}

const done = new Set<string>();
await page.goto(`${origin}/engines/${id}`);
// The other pages are fetched in the background after the first.
await page.waitForLoadState('networkidle');
for (const [stage, label, size, count] of [
  ['bores', 'M1 main bore front plane, mm', 64.01, 20],
  ['journals', 'M1 main journal front, 0°, mm', 59.98, 20],
  ['bigEnds', 'R1 big end front plane, mm', 52.01, 16],
  ['pins', 'P1 crankpin front, 0°, mm', 47.98, 16],
  // Once more, when everything is known: now each figure changes the plan.
  ['bores', 'M1 main bore front plane, mm', 64.009, 20],
  ['journals', 'M1 main journal front, 0°, mm', 59.979, 20],
  ['pins', 'P1 crankpin front, 0°, mm', 47.979, 16],
  ['bigEnds', 'R1 big end front plane, mm', 52.009, 16],
  ['bores', 'M1 main bore front plane, mm', 64.011, 20],
  ['journals', 'M1 main journal front, 0°, mm', 59.981, 20],
] as const) {
  const isAgain = done.has(stage);
  done.add(stage);
  // One page all along, as at the bench.
  await page.evaluate('times.entered = 0');
  await page.getByRole('link', { name: new RegExp(`^${stageName(stage)},`, 'u') }).click();
  await page.getByLabel(label).focus();
  for (let at = 0; at < count; at += 1) {
    if (isAgain) await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type((size + (at % 7) / 1000).toFixed(3), { delay: BETWEEN_KEYS_MS });
    await page.keyboard.press('Enter', { delay: BETWEEN_KEYS_MS });
  }
  for (let at = 0; at < 30; at += 1) await page.evaluate('paint()');
  for (let at = 0; at < 10; at += 1) await page.evaluate('work()');
  // A key that does nothing but that.
  for (let at = 0; at < 30; at += 1) await page.keyboard.press('F9', { delay: BETWEEN_KEYS_MS });
}
const { kept, shown, told, redrawn, bare, bareTold, work } = (await page.evaluate('times')) as Times;
await browser.close();
await api.dispose();

const share = (list: readonly number[], part: number) => {
  const sorted = [...list].sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? Number.NaN;
};
const line = (name: string, list: readonly number[]) =>
  `  ${name.padEnd(34)} median ${share(list, 0.5).toFixed(1)} ms, p95 ${share(list, 0.95).toFixed(1)} ms, worst ${share(list, 1).toFixed(1)} ms (${list.length})`;
console.log(
  [
    `entry: 72 readings of five mains and four rods by keypad alone, ${1000 / BETWEEN_KEYS_MS} keys a second (aim: p95 at most ${MOST_MS} ms)`,
    line('leaving a cell to kept here', kept),
    line('leaving a cell to its frame', shown),
    line('the same, as the browser tells it', told),
    line('leaving a cell to the plan redrawn', redrawn),
    line('a bare paint, for reference', bare),
    line('the same, as the browser tells it', bareTold),
    line('three million sums, for reference', work),
    `  a cell’s frame takes ${(share(shown, 0.95) / share(bare, 0.95)).toFixed(1)} times a bare paint (p95 each)`,
  ].join('\n'),
);
