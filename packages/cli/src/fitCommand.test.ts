import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fitErrorSchema, fitPlanSchema, shimPlanSchema } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { fitCommand } from './fitCommand.js';
import { runFettle } from './runFettle.js';

const folder = mkdtempSync(join(tmpdir(), 'fettle-cli-'));
const root = join(import.meta.dirname, '../../..');

function request(low = 0.025, wall = 1.992) {
  return {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: [{ id: 'M1', family: 'main', journal: 59.981, aim: 0.04, low, high: 0.06 }],
    housings: [{ id: 'B1', family: 'main', bore: 64.012, station: 'M1' }],
    shells: [
      { id: 'teal upper', family: 'main', series: 'A', half: 'upper', wall, stock: 6 },
      { id: 'plum lower', family: 'main', series: 'A', half: 'lower', wall: 1.998, stock: null },
    ],
  };
}

/** The command in this process; its own process, and what that does with its streams, have tests of their own. */
async function fettle(args: string[], given = '') {
  let [out, err] = ['', ''];
  const status = await runFettle(args, {
    input: Readable.from([Buffer.from(given)]),
    write: (text) => {
      out += text;
    },
    complain: (text) => {
      err += text;
    },
  });
  return { status, out, err };
}

describe('standard streams', () => {
  const shell = (command: string) =>
    spawnSync('bash', ['-c', command], {
      encoding: 'utf8',
      cwd: root,
      env: {
        ...process.env,
        FETTLE: `${process.execPath} --conditions=@fettle/source --import tsx packages/cli/src/main.ts`,
      },
    });
  const short = join(folder, 'infeasible.ndjson');
  const lines = join(folder, 'many.ndjson');
  writeFileSync(lines, `${JSON.stringify(request())}\n`.repeat(3_000));

  it('closed by their reader end the command without a trace', () => {
    const { stdout, stderr } = shell(`$FETTLE fit ${lines} --ndjson | head -1; echo "status \${PIPESTATUS[0]}"`);
    expect(stderr).toBe('');
    expect(stdout.split('\n')[1]).toBe('status 0');
    writeFileSync(short, `${JSON.stringify(request(0.05, 2.02))}\n`.repeat(400));
    const none = shell(`$FETTLE fit ${short} --ndjson | head -1; echo "status \${PIPESTATUS[0]}"`);
    expect([none.stderr, none.stdout.split('\n')[1]]).toEqual(['', 'status 3']);
  });

  it('on a full disk end with status 5 and words', () => {
    const { stderr, status } = shell(`$FETTLE fit ${lines} --ndjson > /dev/full`);
    expect(status).toBe(5);
    expect(stderr).toMatch(/^fettle: cannot write the answer: .*no space left on device.*\n$/u);
  });

  it('that are not UTF-8 are refused with the place', async () => {
    const file = join(folder, 'latin1.json');
    writeFileSync(file, Buffer.from(JSON.stringify({ ...request(), note: 'Müller' }, null, 1), 'latin1'));
    const { status, err, out } = await fettle(['fit', file]);
    expect({ status, out }).toEqual({ status: 2, out: '' });
    expect(err).toMatch(/not UTF-8 at byte \d+, line \d+/u);
    const bytes = [
      Buffer.from(JSON.stringify(request())),
      Buffer.from([0x22, 0xff, 0x22]),
      Buffer.from(JSON.stringify(request())),
    ];
    writeFileSync(file, Buffer.concat(bytes.flatMap((line) => [line, Buffer.from('\n')])));
    const answers = (await fettle(['fit', file, '--ndjson'])).out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(answers.map(({ format }) => format)).toEqual(['fettle.fit-plan/1', 'fettle.error/1', 'fettle.fit-plan/1']);
    expect(answers[1].errors[0].message).toContain('not UTF-8 at byte 2');
  });

  it('of an explanation are the same however busy the machine is: without --seconds no clock is asked', async () => {
    const bounded = readFileSync(join(import.meta.dirname, '../../core/src/fit/testing/sixRods.json'), 'utf8');
    const answer = async () => {
      let out = '';
      const write = (text: string) => {
        out += text;
      };
      const streams = { write, complain: () => {} };
      const input = (async function* () {
        yield Buffer.from(bounded);
      })();
      await fitCommand(input, { ndjson: false, seconds: Number.POSITIVE_INFINITY, prices: false }, streams);
      return out;
    };
    const idle = await answer();
    const now = performance.now.bind(performance);
    // Ten seconds pass between two looks at the clock.
    let looks = 0;
    performance.now = () => now() + 10_000 * looks++;
    try {
      expect(await answer()).toBe(idle);
      expect(JSON.parse(idle).conflicts[0].remedies.length).toBeGreaterThan(0);
    } finally {
      performance.now = now;
    }
  });
});

describe('fettle fit', () => {
  it('prints the plan of a file through npm', () => {
    const file = join(folder, 'request.json');
    writeFileSync(file, JSON.stringify(request()));
    const out = execFileSync('npm', ['run', '-s', 'fettle', '--', 'fit', file], {
      cwd: root,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const plan = fitPlanSchema.parse(JSON.parse(out));
    // By hand: 64.012 − 59.981 − 1.992 − 1.998 = 0.041.
    expect(plan.stations[0]!.clearance).toBe(0.041);
  });

  it('reads standard input and exits with 3 when nothing fits', async () => {
    const { status, out } = await fettle(['fit', '-'], JSON.stringify(request(0.05, 2.02)));
    expect(status).toBe(3);
    expect(fitPlanSchema.parse(JSON.parse(out))).toMatchObject({ status: 'infeasible', stations: [] });
  });

  it('exits with 2 and names the path of what is wrong', async () => {
    const { status, out, err } = await fettle(['fit', '-'], JSON.stringify(request(0.07)));
    expect({ status, out }).toEqual({ status: 2, out: '' });
    expect(err).toContain('/stations/0/low: low is above high');
  });

  it('answers one line for one line and still solves the others', async () => {
    const { status, out, err } = await fettle(
      ['fit', '-', '--ndjson'],
      `${JSON.stringify(request())}\nnot json\n${JSON.stringify(request(0.05, 2.02))}\n`,
    );
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(status).toBe(2);
    expect(fitPlanSchema.parse(lines[0]).status).toBe('optimal');
    expect(fitErrorSchema.parse(lines[1])).toMatchObject({ line: 2 });
    expect(fitPlanSchema.parse(lines[2]).status).toBe('infeasible');
    expect(err).toContain('line 2');
  });

  it('answers a line before the next one has come', async () => {
    const child = spawn(
      process.execPath,
      [
        '--conditions=@fettle/source',
        '--import',
        'tsx',
        join(root, 'packages/cli/src/main.ts'),
        'fit',
        '-',
        '--ndjson',
      ],
      { cwd: root, stdio: ['pipe', 'pipe', 'inherit'] },
    );
    const [first] = await Promise.all([
      once(child.stdout, 'data'),
      child.stdin.write(`${JSON.stringify(request())}\n`),
    ]);
    expect(fitPlanSchema.parse(JSON.parse(String(first[0]))).status).toBe('optimal');
    // A sign that ends a line elsewhere stands inside a name here.
    const named = request();
    named.stations[0]!.id = 'M\u20281';
    named.housings[0]!.station = 'M\u20281';
    const [second] = await Promise.all([
      once(child.stdout, 'data'),
      child.stdin.write(JSON.stringify(named)),
      child.stdin.end(),
    ]);
    expect(JSON.parse(String(second[0])).stations[0].id).toBe('M\u20281');
    const [status] = await once(child, 'exit');
    expect(status).toBe(0);
  });

  it('exits with 4 and says what is proven when the time comes before an answer', async () => {
    const journals = [43.992, 43.987, 43.984, 43.986, 43.989, 43.987, 43.99, 43.982];
    const bores = [48.008, 48.008, 48.014, 48.007, 48.002, 48.006, 48.005, 48.007];
    const stations = journals.map((journal, at) => ({
      id: `P${at}`,
      family: 'rod',
      journal,
      aim: 0.036,
      low: 0.03,
      high: 0.042,
    }));
    const housings = bores.map((bore, at) => ({ id: `R${at}`, family: 'rod', bore }));
    const shells = [0, 1, 2, 3].flatMap((grade) =>
      ['upper', 'lower'].map((half) => ({
        id: `g${grade}${half}`,
        family: 'rod',
        series: 'A',
        half,
        wall: 1.984 + (3 * grade) / 1000,
        stock: half === 'lower' && grade === 0 ? 1 : half === 'lower' && grade === 3 ? 3 : 2,
      })),
    );
    const short = { format: 'fettle.fit-request/1', unit: 'mm', stations, housings, shells };
    const { status, out } = await fettle(['fit', '-', '--seconds', '0.000001'], JSON.stringify(short));
    const plan = fitPlanSchema.parse(JSON.parse(out));
    expect([status, plan.status]).toEqual([4, 'stopped']);
    expect([plan.cost, plan.stations, plan.conflicts]).toEqual([null, [], []]);
    expect(plan.bound).toBeGreaterThanOrEqual(0);
  });

  it('takes a limit in seconds', async () => {
    expect((await fettle(['fit', '-', '--seconds', '5'], JSON.stringify(request()))).status).toBe(0);
    expect(await fettle(['fit', '-', '--seconds', 'soon'], JSON.stringify(request()))).toMatchObject({
      status: 2,
      out: '',
    });
  });

  it('explains wrong usage', async () => {
    expect((await fettle(['fit'])).status).toBe(2);
    expect((await fettle(['fit', '-', '--fast'])).err).toContain('--fast');
    const missing = await fettle(['fit', join(folder, 'nowhere.json')]);
    expect(missing).toMatchObject({ status: 2 });
    expect(missing.err).toContain('nowhere.json');
  });
});

describe('fettle shims', () => {
  const stack = (low: number) => ({
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'ring-shims',
    low,
    high: 0.15,
    aim: 0.1 + low / 10,
    gap: 0.58,
    counts: [3, 2],
    pieces: [{ id: 'A', thickness: 0.24, stock: 2 }],
  });

  it('answers as fit does, line by line', async () => {
    const one = await fettle(['shims', '-'], JSON.stringify(stack(0.07)));
    // By hand: 0.58 − 2 × 0.24 = 0.1, off by 7 µm below: 2 × 49 µm², and 25 for the second number of rings.
    expect([one.status, shimPlanSchema.parse(JSON.parse(one.out))]).toMatchObject([0, { result: 0.1, cost: 123 }]);
    const input = `${JSON.stringify(stack(0.07))}\n{}\n${JSON.stringify(stack(0.11))}\n`;
    const { status, out, err } = await fettle(['shims', '-', '--ndjson'], input);
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect([status, lines.map((line) => line.status ?? line.line)]).toEqual([2, ['optimal', 2, 'infeasible']]);
    expect(err).toMatch(/^line 2: /u);
    expect((await fettle(['shims', '-'], JSON.stringify(stack(0.11)))).status).toBe(3);
  });
});

describe('fettle codes', () => {
  const sheet = {
    format: 'fettle.code-sheet/1',
    name: 'Rush Twin',
    unit: 'mm',
    rows: [{ feature: 'mainJournal', prefix: 'J', first: 'rear' }],
    main: {
      limits: { low: 0.02, high: 0.045, source: 'Rush Twin workshop book, p. 12' },
      housing: [
        { mark: 'A', low: 64, high: 64.006 },
        { mark: 'B', low: 64.006, high: 64.012 },
      ],
      journal: [{ mark: '1', low: 59.994, high: 60 }],
      grades: [
        { id: 'Teal', low: 1.9865, high: 1.9885 },
        { id: 'Plum', low: 1.9895, high: 1.9915 },
      ],
      table: { A: { 1: 'Teal' }, B: { 1: 'Plum' } },
    },
  };

  it('checks a table and decodes a row', async () => {
    const args = ['codes', '-', '--row', 'J 1 1 I', '--feature', 'mainJournal', '--count', '3'];
    const { status, out } = await fettle(args, JSON.stringify(sheet));
    const report = JSON.parse(out);
    // By hand: 64.000 − 60.000 − 2 · 1.9885 = 0.023; 64.006 − 59.994 − 2 · 1.9865 = 0.039.
    expect(report.families[0].cells[0]).toMatchObject({ clearance: { tightest: 0.023, loosest: 0.039 } });
    expect(report.families[0].findings).toEqual([]);
    // The row is stamped from the rear: its last sign is the front main. One sign is not a mark.
    expect(report.row.marks[0]).toMatchObject({ station: 1, typed: 'I', mark: null, lookalikes: ['1'] });
    expect(status).toBe(3);
    expect((await fettle(['codes', '-'], JSON.stringify(sheet))).status).toBe(0);
  });

  it('names what is wrong with a sheet, and a row that the sheet does not have', async () => {
    const bad = await fettle(['codes', '-'], JSON.stringify({ ...sheet, main: { ...sheet.main, grades: [] } }));
    expect(bad.status).toBe(2);
    expect(bad.err).toContain('/main/grades');
    const row = await fettle(['codes', '-', '--row', 'P 1', '--feature', 'pin', '--count', '1'], JSON.stringify(sheet));
    expect([row.status, row.err]).toEqual([2, 'fettle: the sheet has no row for “pin”; it has: mainJournal\n']);
  });
});

describe('fettle kit', () => {
  const band = { low: 64.012, high: 64.012 };
  const question = (low: number) => ({
    format: 'fettle.kit-question/1',
    unit: 'mm',
    stations: [
      { id: 'M1', family: 'main', bore: band, journal: { low: 59.981, high: 59.981 }, aim: 0.04, low, high: 0.06 },
    ],
    shells: [{ id: 'plain', family: 'main', series: 'A', half: 'either', wall: 1.995, stock: 2 }],
    engines: 40,
  });

  it('says the chance with its interval', async () => {
    // By hand: 64.012 − 59.981 − 2 · 1.995 = 0.041, whatever is drawn.
    const sure = JSON.parse((await fettle(['kit', '-'], JSON.stringify(question(0.03)))).out);
    expect(sure).toMatchObject({ format: 'fettle.kit-chance/1', chance: 1, high: 1, engines: 40 });
    expect(JSON.parse((await fettle(['kit', '-'], JSON.stringify(question(0.05)))).out)).toMatchObject({
      chance: 0,
      low: 0,
    });
    // Which halves should be on the shelf: the pair that is there already, and no more.
    const advice = await fettle(['kit', '-', '--chance', '0.9'], JSON.stringify(question(0.03)));
    expect([advice.status, JSON.parse(advice.out)]).toMatchObject([
      0,
      { format: 'fettle.kit-advice/1', shelf: [{ id: 'plain', count: 2 }], order: [], isReached: true },
    ]);
    expect((await fettle(['kit', '-', '--chance', '0.9'], JSON.stringify(question(0.05)))).status).toBe(3);
    expect((await fettle(['kit', '-', '--chance', '90'], JSON.stringify(question(0.03)))).err).toContain(
      'above 0 and up to 1',
    );
    const bad = await fettle(['kit', '-'], JSON.stringify({ ...question(0.03), stations: [] }));
    expect([bad.status, bad.err.startsWith('/stations: ')]).toEqual([2, true]);
  });
});

describe('fettle read', () => {
  const limits = ['read', '--unit', 'in', '--low', '2.4480', '--high', '2.4490', '--resolution', '0.0001'];
  const printed = async (...words: string[]) => JSON.parse((await fettle([...limits, ...words])).out);

  it('judges a reading and names the slips that would explain it, the likeliest first', async () => {
    expect(await printed('2.4485')).toEqual({ value: 2.4485, unit: 'in', verdict: 'inside', slips: [] });
    // By hand: one turn of 0.025 in.
    expect(await printed('2,4235')).toEqual({
      value: 2.4235,
      unit: 'in',
      verdict: 'implausible',
      slips: [{ kind: 'thimble-turn', likely: 2.4485 }],
    });
    expect(await printed('62.19')).toMatchObject({ slips: [{ kind: 'other-unit', likely: 2.4484 }] });
    expect(await printed('--', '-2.4485')).toEqual({ value: -2.4485, unit: 'in', verdict: 'implausible', slips: [] });
  });

  it('says what of its options or of the reading cannot be read', async () => {
    const refused = async (...words: string[]) => {
      const { status, out, err } = await fettle(words);
      return [status, out, err.split('\n')[0]];
    };
    expect(await refused(...limits, 'two')).toEqual([2, '', expect.stringContaining('“two” has no digits')]);
    expect((await refused('read', '--unit', 'cm', '2.4485'))[2]).toBe('fettle: --unit is “cm”; use mm or in');
    expect((await refused(...limits, '--low', '2.45', '2.4485'))[2]).toBe(
      'fettle: --low 2.45 is above --high 2.4490; swap them',
    );
    expect((await refused(...limits, '--resolution', '0', '2.4485'))[2]).toContain('enter a length above 0');
  });
});

describe('fettle torque', () => {
  it('gives equal stages, rounded up to a sensible figure, the last exact', async () => {
    const steps = async (...words: string[]) => JSON.parse((await fettle(['torque', ...words])).out);
    // Common practice, as the work is described.
    expect(await steps('--final', '70', '--unit', 'ft-lb', '--stages', '3')).toEqual({
      unit: 'ft-lb',
      steps: [25, 50, 70],
    });
    expect(await steps('--final', '18.5', '--unit', 'Nm', '--stages', '2')).toEqual({ unit: 'Nm', steps: [10, 18.5] });
  });

  it('says which option cannot be read', async () => {
    const refused = async (...words: string[]) => (await fettle(['torque', ...words])).err.split('\n')[0];
    expect(await refused('--final', '70', '--unit', 'ftlb', '--stages', '3')).toContain('use one of ft-lb, in-lb, Nm');
    expect(await refused('--final', '0', '--unit', 'Nm', '--stages', '3')).toContain('--final is “0”');
    expect(await refused('--final', '70', '--unit', 'Nm')).toContain(
      '--stages is “”; give a whole number from 1 to 20',
    );
  });
});
