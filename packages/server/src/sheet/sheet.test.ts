import { createHash, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  buildSheet,
  comparedSheets,
  FEATURES,
  fit,
  type JobDocument,
  jobAssembly,
  jobFacts,
  jobFit,
  nanometres,
  newJob,
  partCount,
  plannedHalves,
  type Reading,
  readBuildSheet,
  type SignedSheet,
  STATE_WORDS,
  signedContent,
  usualLayout,
} from '@fettle/core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoEngines } from '../demo/demoEngine.js';
import { runningServer } from '../testing/runningServer.js';
import { LAYOUT } from '../testing/samples.js';
import { paperMoment } from './paper.js';
import { paperText } from './paperText.js';
import { PdfPool } from './pdfPool.js';
import { sheetPdf } from './sheetPdf.js';
import { unpackWoff } from './unpackWoff.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const STANDARD_FONTS = join(import.meta.dirname, '../../../../node_modules/pdfjs-dist/standard_fonts/');

/** What stands on each page of a PDF, read by a library that had no part in making it. */
async function textOf(pdf: Uint8Array): Promise<string[]> {
  const document = await getDocument({ data: pdf.slice(), standardFontDataUrl: STANDARD_FONTS, verbosity: 0 }).promise;
  const pages: string[] = [];
  for (let page = 1; page <= document.numPages; page += 1) {
    const { items } = await (await document.getPage(page)).getTextContent();
    pages.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replaceAll(/\s+/gu, ' '),
    );
  }
  await document.destroy();
  return pages;
}

/** One of the demo's engines as the server knows it; the one in the middle of its trials unless another is named. */
async function onBench(number = '0241') {
  const engine = demoEngines().find(({ document }) => document.name.endsWith(number))!;
  const id = randomUUID();
  await server.call('POST', '/api/jobs', { id, by, document: engine.document });
  const at = '2026-01-12T10:00:00.000Z';
  const stamp = { unit: engine.document.unit, setting: null, replaces: null, by, at };
  for (const { feature, slot, texts } of engine.readings) {
    for (const [place, text] of texts.entries()) {
      const draft = { feature, slot, station: place + 1, text, ...stamp };
      const { status } = await server.call('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, draft);
      expect(status).toBe(201);
    }
  }
  return (await server.call('GET', `/api/jobs/${id}`)).body;
}

/** A V8 read, selected, assembled and turned: five mains, eight rods, every check made. */
function builtV8() {
  const usual = usualLayout(5, 8, 2, 3);
  if (!usual.ok) throw new Error(usual.message);
  const blank = newJob(
    'Samphire 8 · no. 0100',
    'mm',
    usual.layout,
    { block: 'iron', caps: 'iron', rods: 'steel' },
    true,
  );
  const um = (value: number) => nanometres(Math.round(value * 1000));
  const limit = (low: number, high: number) => ({
    low: um(low),
    high: um(high),
    source: 'Samphire 8 overhaul manual, p. 12',
  });
  const shell = (family: 'main' | 'rod', half: 'upper' | 'lower', grade: string, wall: number) =>
    [
      `${family} ${half} ${grade}`,
      { family, series: 'Osier', grade, half, wall: um(wall), stock: 9, line: null },
    ] as const;
  const shells = Object.fromEntries(
    (['upper', 'lower'] as const).flatMap((half) => [
      ...['Teal', 'Plum', 'Rust'].map((grade, at) => shell('main', half, grade, 1_989 + 3 * at)),
      ...['Thin', 'Even', 'Full'].map((grade, at) => shell('rod', half, grade, 1_487 + 3 * at)),
    ]),
  );
  const document: JobDocument = {
    ...blank,
    shells,
    limits: {
      ...blank.limits,
      mainBore: limit(64_000, 64_019),
      mainJournal: limit(59_976, 59_994),
      mainClearance: limit(20, 60),
      bigEnd: limit(54_000, 54_019),
      pin: limit(50_976, 50_994),
      rodClearance: limit(20, 60),
    },
  };
  const at = '2026-06-30T09:00:00.000Z';
  const sizes = { mainBore: 64_010, mainJournal: 59_985, bigEnd: 54_010, pin: 50_985 } as const;
  const readings = FEATURES.flatMap((feature) =>
    document.measuring.slots[feature].flatMap((slot) =>
      Array.from({ length: partCount(document.layout, feature) }, (_, place): Reading => {
        const size = sizes[feature] + ((place * 2) % 5) - 2;
        const text = (size / 1000).toFixed(3);
        return {
          id: randomUUID(),
          feature,
          station: place + 1,
          slot,
          text,
          unit: 'mm',
          setting: null,
          replaces: null,
          nm: um(size),
          by,
          at,
        };
      }),
    ),
  );
  const asked = jobFit(document, readings);
  if (!asked.ok) throw new Error(asked.reason);
  const stations = plannedHalves(document, asked, fit(asked.problem));
  const chosen: JobDocument = { ...document, choice: { at, by, stations } };
  const { stations: known } = jobFacts(chosen, readings);
  const all = jobAssembly(chosen, known);
  const made = { state: 'done' as const, words: '', photo: null, decision: null, by, at };
  const checks = Object.fromEntries(
    all.flatMap(({ before, after }) => [...before, ...after].map(({ place }) => [place, made])),
  );
  const turn = { how: 'even' as const, angle: null, breakaway: null, by, at };
  const turns = Object.fromEntries(all.map(({ station }) => [station, turn]));
  return { job: { ...chosen, assembly: { ...chosen.assembly, checks, turns } }, readings };
}

describe('a build sheet on paper', () => {
  it('says what the page says, on one page, with every reading on the next', async () => {
    const job = await onBench();
    const sheet = buildSheet(job.document, job.readings, {
      madeAt: job.updatedAt,
      madeBy: job.updatedBy,
      version: job.version,
    });
    const pdf = await fetch(`${server.origin}/api/jobs/${job.id}/sheet.pdf?zone=Europe/Lisbon`);
    expect(pdf.headers.get('content-type')).toBe('application/pdf');
    const pages = await textOf(new Uint8Array(await pdf.arrayBuffer()));
    const bare = (text: string) => text.replaceAll(/\s+/gu, '');
    const [first = '', ...rest] = pages.map(bare);
    expect(first).toContain(bare(sheet.engine));
    for (const { label, text } of sheet.facts) expect(first).toContain(bare(`${label}: ${text}`));
    for (const { title, rows, part } of sheet.tables) {
      const where = part === 'readings' ? rest.join('') : first;
      expect(where).toContain(bare(title));
      for (const { text, small, state } of rows.flat()) {
        expect(where).toContain(bare(text));
        if (small !== undefined) expect(where).toContain(bare(small));
        if (state !== undefined) expect(where).toContain(bare(STATE_WORDS[state as 'inside']));
      }
    }
    for (const note of sheet.notes) expect(first).toContain(bare(note));
    expect(sheet.tables.some(({ part }) => part === 'readings')).toBe(true);
  });

  it('has a V8 with all that is known of it on one page, and its readings on the next', async () => {
    const { job, readings } = builtV8();
    const sheet = buildSheet(job, readings, { madeAt: '2026-07-01T10:30:00.000Z', madeBy: by, version: 1 });
    for (const paper of ['A4', 'Letter'] as const) {
      const pages = await textOf(
        await sheetPdf({ sheet, signed: null, paper, zone: 'UTC', locale: 'en-GB', clearances: 'unit' }),
      );
      expect(pages.length, paper).toBe(2);
      expect(pages[0]).toContain('Remarks');
      expect(pages[0]).toContain('all in order');
      expect(pages[1]).toMatch(/^Readings of Samphire 8/u);
    }
  });

  it('draws letters of the extended part of its fonts, and owns up to signs that it has not', async () => {
    expect(paperText('Łódź 日')).toEqual([
      { text: 'Ł', font: 'TextExtended' },
      { text: 'ód', font: 'Text' },
      { text: 'ź', font: 'TextExtended' },
      { text: ' ?', font: 'Text' },
    ]);
    const usual = usualLayout(1, 1, 1, 1);
    if (!usual.ok) throw new Error(usual.message);
    const job = newJob('Łódź Twin', 'in', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
    const sheet = buildSheet(job, [], { madeAt: '2026-07-01T10:30:00.000Z', madeBy: by, version: 1 });
    const task = {
      sheet,
      signed: null,
      paper: 'Letter',
      zone: 'Asia/Tokyo',
      locale: 'en-GB',
      clearances: 'unit',
    } as const;
    const pages = await textOf(await sheetPdf(task));
    expect(pages[0]!.replaceAll(' ', '')).toContain('ŁódźTwin');
    // Half past ten by Greenwich is half past seven in the evening there.
    expect(pages[0]).toContain('1 Jul 2026, 19:30');
  });

  it('writes dates as the asking device does, in English where its fonts cannot', () => {
    const at = '2026-07-01T10:30:00.000Z';
    expect(paperMoment(at, { locale: 'en-US', zone: 'UTC' })).toBe('Jul 1, 2026, 10:30 AM');
    expect(paperMoment(at, { locale: 'de-DE', zone: 'UTC' })).toBe('01.07.2026, 10:30');
    expect(paperMoment(at, { locale: 'ru-RU', zone: 'UTC' })).toBe('1 Jul 2026, 10:30');
  });

  it('shows clearances in thousandths to who asks for them, and sizes in inches all the same', async () => {
    const { id } = await onBench('0046');
    const pdf = await fetch(`${server.origin}/api/jobs/${id}/sheet.pdf?clearances=thou`);
    const [first = ''] = await textOf(new Uint8Array(await pdf.arrayBuffer()));
    expect(first).toContain('clearances in thousandths');
    expect(first).toMatch(/Main oil clearance\s+1\.5 thou\s+3\.2 thou/u);
    expect(first).toContain('2.6406 in');
  });
});

describe('a signed sheet', () => {
  it('stays as it was, with its hash on it; a correction is a new revision that names its reason', async () => {
    const job = await onBench();
    const sign = (body: object) => server.call('POST', `/api/jobs/${job.id}/sheets`, { by, ...body });
    expect((await sign({ seen: job.revision - 1, revision: 1 })).status).toBe(409);
    const first: SignedSheet = (await sign({ seen: job.revision, revision: 1 })).body;
    expect(first.open.length).toBeGreaterThan(0);
    const at = async (revision: number) => (await server.call('GET', `/api/jobs/${job.id}/sheets/${revision}`)).body;
    const kept = await at(1);
    const read = readBuildSheet(kept.sheet);
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(createHash('sha256').update(signedContent(read.sheet, kept)).digest('hex')).toBe(first.hash);

    const steps = [{ op: 'add', path: '/name', value: 'Sedge 4 · no. 0999' }];
    const { body: changed } = await server.call('PATCH', `/api/jobs/${job.id}`, { version: job.version, by, steps });
    expect((await at(1)).sheet.engine).toBe(job.document.name);
    expect((await sign({ seen: changed.revision, revision: 1, reason: 'again' })).status).toBe(409);
    expect((await sign({ seen: changed.revision, revision: 2 })).status).toBe(422);
    const loose = await fetch(`${server.origin}/api/jobs/${job.id}/sheet.pdf`);
    const [unsigned = ''] = await textOf(new Uint8Array(await loose.arrayBuffer()));
    expect(unsigned).toContain('differs from signed revision 1 in 1 line');
    const { body: second } = await sign({ seen: changed.revision, revision: 2, reason: 'number misread' });
    expect(second.hash).not.toBe(first.hash);
    const { body: list } = await server.call('GET', `/api/jobs/${job.id}/sheets`);
    expect(list.map(({ revision }: SignedSheet) => revision)).toEqual([2, 1]);
    expect(comparedSheets(kept.sheet, kept.sheet, String)).toEqual([]);

    const pdf = await fetch(`${server.origin}/api/jobs/${job.id}/sheets/2/sheet.pdf`);
    const [page = ''] = await textOf(new Uint8Array(await pdf.arrayBuffer()));
    expect(page).toContain(second.hash);
    expect(page).toContain('revision 2: number misread');
    expect(page).toContain('Sedge 4 · no. 0999');
  });
});

describe('a picture of a finding', () => {
  it('comes back byte by byte, is what it says, and at most 5 MB', async () => {
    const { id } = await onBench();
    const dot = readFileSync(join(import.meta.dirname, '../../../../docs/screenshots/choose.png'));
    const photo = randomUUID();
    const put = (data: Buffer, type = 'image/png') =>
      server.call('PUT', `/api/jobs/${id}/photos/${photo}`, { by, type, data: data.toString('base64') });
    expect((await put(dot)).status).toBe(201);
    const back = await fetch(`${server.origin}/api/jobs/${id}/photos/${photo}`);
    expect([back.headers.get('content-type'), back.headers.get('x-content-type-options')]).toEqual([
      'image/png',
      'nosniff',
    ]);
    expect(Buffer.from(await back.arrayBuffer()).equals(dot)).toBe(true);
    expect((await put(Buffer.concat([dot, Buffer.from([1])]))).status).toBe(409);
    expect((await put(Buffer.from('<svg onload="x"/>'))).status).toBe(422);
    expect((await put(Buffer.alloc(5 * 1024 * 1024 + 10))).status).toBe(422);
  });
});

describe('a sheet on paper', () => {
  it('has its turn between those that another one asks for, however many they are', async () => {
    const pool = new PdfPool();
    const document = newJob('Reed 6', 'mm', LAYOUT, { block: 'iron', caps: 'iron', rods: 'steel' });
    const sheet = buildSheet(document, [], { madeAt: '2026-01-12T10:00:00.000Z', madeBy: by, version: 1 });
    const task = { sheet, signed: null, paper: 'A4', zone: 'UTC', locale: 'en-GB', clearances: 'unit' } as const;
    const gone = new AbortController().signal;
    const done: string[] = [];
    const greedy = Array.from({ length: 40 }, () =>
      pool.make(task, { client: 'greedy', gone }).then(
        () => done.push('greedy'),
        (error: { kind: string }) => error.kind,
      ),
    );
    const other = await pool.make(task, { client: 'other', gone });
    expect(other.subarray(0, 5).toString()).toBe('%PDF-');
    // The one that was under way, and one more at the most.
    expect(done.length).toBeLessThanOrEqual(2);
    const answers = await Promise.all(greedy);
    expect(answers.filter((answer) => answer === 'too-busy')).toHaveLength(23);
    await pool.close();
  }, 60_000);

  it('is drawn with the fonts that ship, unpacked as the standard says', () => {
    const file = join(import.meta.dirname, '../../../../node_modules/@fontsource/atkinson-hyperlegible-next/files');
    const woff = readFileSync(join(file, 'atkinson-hyperlegible-next-latin-400-normal.woff'));
    const font = unpackWoff(woff);
    expect(font.length).toBe(woff.readUInt32BE(16));
    // Each table sums up to what stands beside it (OpenType, "Calculating checksums"); `head` holds a sum of its own.
    for (let nth = 0; nth < font.readUInt16BE(4); nth += 1) {
      const at = 12 + nth * 16;
      const [offset, length] = [font.readUInt32BE(at + 8), font.readUInt32BE(at + 12)];
      let sum = 0;
      for (let word = offset; word < offset + length; word += 4) {
        const isAdjustment = font.toString('latin1', at, at + 4) === 'head' && word === offset + 8;
        if (!isAdjustment) sum = (sum + font.readUInt32BE(word)) >>> 0;
      }
      expect([font.toString('latin1', at, at + 4), sum]).toEqual([
        font.toString('latin1', at, at + 4),
        font.readUInt32BE(at + 4),
      ]);
    }
    expect(() => unpackWoff(font)).toThrow('no WOFF font');
  });
});
