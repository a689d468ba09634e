import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fitErrorSchema, fitPlanSchema } from '@fettle/core';
import { describe, expect, it } from 'vitest';

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

function fettle(args: string[], input = '') {
  const run = spawnSync(
    process.execPath,
    ['--conditions=@fettle/source', '--import', 'tsx', join(root, 'packages/cli/src/main.ts'), ...args],
    { input, encoding: 'utf8', cwd: root },
  );
  return { status: run.status, out: run.stdout, err: run.stderr };
}

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

  it('reads standard input and exits with 3 when nothing fits', () => {
    const { status, out } = fettle(['fit', '-'], JSON.stringify(request(0.05, 2.02)));
    expect(status).toBe(3);
    expect(fitPlanSchema.parse(JSON.parse(out))).toMatchObject({ status: 'infeasible', stations: [] });
  });

  it('exits with 2 and names the path of what is wrong', () => {
    const { status, out, err } = fettle(['fit', '-'], JSON.stringify(request(0.07)));
    expect({ status, out }).toEqual({ status: 2, out: '' });
    expect(err).toContain('/stations/0/low: low is above high');
  });

  it('answers one line for one line and still solves the others', () => {
    const { status, out, err } = fettle(
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

  it('takes a limit in seconds', () => {
    expect(fettle(['fit', '-', '--seconds', '5'], JSON.stringify(request())).status).toBe(0);
    expect(fettle(['fit', '-', '--seconds', 'soon'], JSON.stringify(request()))).toMatchObject({ status: 2, out: '' });
  });

  it('explains wrong usage', () => {
    expect(fettle(['fit']).status).toBe(2);
    expect(fettle(['fit', '-', '--fast']).err).toContain('--fast');
    const missing = fettle(['fit', join(folder, 'nowhere.json')]);
    expect(missing).toMatchObject({ status: 2 });
    expect(missing.err).toContain('nowhere.json');
  });
});
