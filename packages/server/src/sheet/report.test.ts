import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { blankStation, type CustomerReport, type SignedSheet } from '@fettle/core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoEngines } from '../demo/demoEngine.js';
import { runningServer } from '../testing/runningServer.js';
import { reportPdf } from './reportPdf.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const root = join(import.meta.dirname, '../../../..');
/** A picture of one dot: what is tested is where it goes. */
const picture = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const STANDARD_FONTS = join(root, 'node_modules/pdfjs-dist/standard_fonts/');

/** Pages of a PDF: what stands on each, and how many pictures are drawn; read by a library that had no part in making it. */
async function pagesOf(pdf: Uint8Array): Promise<{ text: string; drawn: number }[]> {
  const { OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const document = await getDocument({ data: pdf.slice(), standardFontDataUrl: STANDARD_FONTS, verbosity: 0 }).promise;
  const pages: { text: string; drawn: number }[] = [];
  for (let at = 1; at <= document.numPages; at += 1) {
    const page = await document.getPage(at);
    const { items } = await page.getTextContent();
    const { fnArray } = await page.getOperatorList();
    pages.push({
      text: items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replaceAll(/\s+/gu, ' '),
      drawn: fnArray.filter((one) => one === OPS.paintImageXObject).length,
    });
  }
  await document.destroy();
  return pages;
}

async function signedEngine() {
  const engine = demoEngines().find(({ document }) => document.name.endsWith('0241'))!;
  const id = randomUUID();
  const at = '2026-01-12T10:00:00.000Z';
  const photo = randomUUID();
  const station = { ...blankStation({ by, at }) };
  const document = {
    ...engine.document,
    cameApart: {
      stations: { M3: { ...station, lower: { ...station.lower, patterns: ['wiped'], words: 'copper shows', photo } } },
      endPlay: null,
      words: '',
    },
    report: { refused: 'The owner keeps the old bolts; we advise against it.', words: '' },
  };
  expect((await server.call('POST', '/api/jobs', { id, by, document })).status).toBe(201);
  const put = { by, type: 'image/png', data: picture.toString('base64') };
  expect((await server.call('PUT', `/api/jobs/${id}/photos/${photo}`, put)).status).toBe(201);
  const { body: job } = await server.call('GET', `/api/jobs/${id}`);
  const { body } = await server.call('POST', `/api/jobs/${id}/sheets`, { by, seen: job.revision, revision: 1 });
  return { job, signed: body as SignedSheet };
}

describe('the report for the customer on paper', () => {
  it('names the hash of the signed sheet, shows the pictures, and nobody’s name unless asked', async () => {
    const { job, signed } = await signedEngine();
    const at = `${server.origin}/api/jobs/${job.id}/sheets/1/report.pdf`;
    const pdf = await fetch(`${at}?zone=Europe/Lisbon`);
    expect([pdf.status, pdf.headers.get('content-type')]).toEqual([200, 'application/pdf']);
    const pages = await pagesOf(new Uint8Array(await pdf.arrayBuffer()));
    const text = pages.map((page) => page.text).join(' ');
    expect(pages.length).toBeLessThanOrEqual(2);
    for (const page of pages) expect(page.text).toContain(signed.hash);
    expect(text).toContain('M3, old lower shell: wiped; copper shows');
    expect(text).toContain('The owner keeps the old bolts; we advise against it.');
    expect(pages.reduce((sum, { drawn }) => sum + drawn, 0)).toBe(1);
    expect(text).not.toContain(by);
    const named = await pagesOf(new Uint8Array(await (await fetch(`${at}?names=yes`)).arrayBuffer()));
    expect(named.map((page) => page.text).join(' ')).toContain(`signed by ${by}`);
  });

  it('is refused for an engine that is not as it was signed, and made again once it is', async () => {
    const { job } = await signedEngine();
    const report = () => server.call('GET', `/api/jobs/${job.id}/sheets/1/report.pdf`);
    const patch = async (steps: object[]) => {
      const { body } = await server.call('GET', `/api/jobs/${job.id}`);
      return server.call('PATCH', `/api/jobs/${job.id}`, { version: body.version, by, steps });
    };
    expect((await patch([{ op: 'add', path: '/name', value: 'Sedge 4 · no. 0999' }])).status).toBe(200);
    const refused = await report();
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      'The engine is not as signed: differs from signed revision 1 in 1 line. Sign it as it is now; the report says what was signed.',
    ]);
    await patch([{ op: 'add', path: '/name', value: job.document.name }]);
    // What is noted after the build, and words for the customer, are no change of what was signed.
    const running = { ...job.document.running, unit: 'km' };
    await patch([{ op: 'add', path: '/running', value: running }]);
    expect((await fetch(`${server.origin}/api/jobs/${job.id}/sheets/1/report.pdf`)).status).toBe(200);
  });
});

describe('a report that is long', () => {
  const lines = (count: number) =>
    Array.from({ length: count }, (_, at) => ({ text: `M${at}: lower shell wiped; copper shows over the oil hole` }));
  const report = (count: number): CustomerReport => ({
    engine: 'Samphire 8 · no. 0100',
    serial: '',
    pictures: [],
    sections: [
      { title: 'What was found', lines: lines(count), table: null },
      { title: 'Work done, before and after', lines: [], table: null },
    ],
  });
  const signed: SignedSheet = {
    revision: 1,
    signedAt: '2026-01-12T10:00:00.000Z',
    signedBy: by,
    reason: '',
    open: [],
    hash: 'a'.repeat(64),
  };
  const task = { signed, more: 0, paper: 'A4', zone: 'UTC', locale: 'en-GB' } as const;
  const pictures = Array.from({ length: 6 }, (_, at) => ({
    caption: `picture ${at}`,
    type: 'image/png',
    data: picture,
  }));

  it('is set smaller, and leaves pictures out, to stay on two pages; and says how many', async () => {
    const short = await pagesOf(await reportPdf({ ...task, report: report(10), pictures }));
    expect([short.length, short.reduce((sum, { drawn }) => sum + drawn, 0)]).toEqual([expect.any(Number), 6]);
    const long = await pagesOf(await reportPdf({ ...task, report: report(90), pictures }));
    expect(long.length).toBeLessThanOrEqual(2);
    const left = 6 - long.reduce((sum, { drawn }) => sum + drawn, 0);
    expect(left).toBeGreaterThan(0);
    expect(long.map(({ text }) => text).join(' ')).toContain(`${left} ${left === 6 ? '' : 'more '}pictures are kept`);
  });

  it('is whole on more pages where nothing helps', async () => {
    const pages = await pagesOf(await reportPdf({ ...task, report: report(300), pictures: [] }));
    expect(pages.length).toBeGreaterThan(2);
    expect(pages.at(-1)!.text).toContain('Work done, before and after');
    expect(pages.map(({ text }) => text).join(' ')).toContain('M299: lower shell wiped');
  });

  it('is not held up by a picture that is damaged inside', async () => {
    const damaged = { caption: 'damaged', type: 'image/jpeg', data: Buffer.from([0xff, 0xd8, 0xff, 0, 1, 2]) };
    const pages = await pagesOf(await reportPdf({ ...task, report: report(3), pictures: [damaged] }));
    expect(pages[0]!.text).toContain('1 picture is kept with the engine');
  });
});
