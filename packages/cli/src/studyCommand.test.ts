import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { studyCommand } from './studyCommand.js';

/** Exit status, standard output and standard error. */
function answered(text: string): [number, string, string] {
  let [out, err] = ['', ''];
  const status = studyCommand(text, {
    write: (more) => {
      out += more;
    },
    complain: (more) => {
      err += more;
    },
  });
  return [status, out, err];
}

describe('fettle study', () => {
  const rows = [
    ['a', 'Wren', 1, 10.1],
    ['a', 'Wren', 2, 10.3],
    ['a', 'Teasel', 1, 10.4],
    ['a', 'Teasel', 2, 10.6],
    ['b', 'Wren', 1, 12.1],
    ['b', 'Wren', 2, 12.3],
    ['b', 'Teasel', 1, 12.4],
    ['b', 'Teasel', 2, 12.6],
  ] as const;
  const json = rows.map(([part, person, trial, value]) => ({ part, person, trial, value }));
  const csv = (separator: string, point: string) =>
    [
      ['Person', 'part', 'TRIAL', 'Value'],
      ...rows.map(([part, person, trial, value]) => [person, part, trial, String(value).replace('.', point)]),
    ]
      .map((row) => row.join(separator))
      .join('\r\n');

  it('prints one object with what repeats, people and parts add, from JSON and from CSV alike', () => {
    const [status, out] = answered(JSON.stringify(json));
    expect(status).toBe(0);
    const result = JSON.parse(out);
    // By hand: parts 2 apart over 4 readings each, people 0.3 apart, repeats 0.2 apart, no interaction.
    for (const [key, wanted] of [
      ['part', 8],
      ['person', 0.18],
      ['interaction', 0],
      ['repeat', 0.08],
    ]) {
      expect(result.ss[key!]).toBeCloseTo(wanted as number, 9);
    }
    // E′ = 0.08/5; (0.18 − 0.016)/4; (8 − 0.016)/4.
    expect(result).toMatchObject({ interaction: 0, pooled: true, categories: 8 });
    for (const [key, wanted] of [
      ['ev', Math.sqrt(0.016)],
      ['av', Math.sqrt(0.041)],
      ['grr', Math.sqrt(0.057)],
      ['pv', Math.sqrt(1.996)],
      ['tv', Math.sqrt(2.053)],
      ['percentGrr', 100 * Math.sqrt(0.057 / 2.053)],
    ] as const) {
      expect(result[key]).toBeCloseTo(wanted, 9);
    }
    expect(Object.keys(result)).toEqual([
      'ev',
      'av',
      'interaction',
      'grr',
      'pv',
      'tv',
      'percentGrr',
      'categories',
      'ss',
      'pooled',
    ]);
    for (const text of [csv(',', '.'), csv(';', ','), csv('\t', '.'), `{"readings":${JSON.stringify(json)}}`]) {
      expect(answered(text)).toEqual([0, out, '']);
    }
  });

  it('exits with 2 and says which cell is missing, or what the file lacks', () => {
    const refused = (text: string) => {
      const [status, out, err] = answered(text);
      expect([status, out]).toEqual([2, '']);
      return err;
    };
    expect(refused(JSON.stringify(json.slice(1)))).toBe('(whole study): Wren has no reading 1 of part a\n');
    expect(refused(JSON.stringify([...json, json[0]]))).toContain('Wren has reading 1 of part a twice');
    expect(refused(JSON.stringify(json.filter(({ person }) => person === 'Wren')))).toContain('two people');
    expect(refused(JSON.stringify(json.filter(({ trial }) => trial === 1)))).toContain('two readings of each part');
    expect(refused('part,person,value\na,Wren,1')).toContain('lacks trial');
    expect(refused('part,person,trial,value\na,Wren,1,ten')).toContain('/0/value: a number');
    expect(refused('[{"part":"a","person":"Wren","trial":1}]')).toContain('/0/value: a number');
    expect(refused('part,person,trial,value\na,Wren,1,"10.1\na,Wren,2,10.3')).toContain('row 2: Quoted field');
    expect(refused('{"readings":')).toContain('not JSON');
  });

  it('is a command of its own', () => {
    const args = ['--conditions=@fettle/source', '--import', 'tsx', join(import.meta.dirname, 'main.ts'), 'study', '-'];
    const run = spawnSync(process.execPath, args, { input: csv(',', '.'), encoding: 'utf8' });
    expect([run.status, run.stdout, run.stderr]).toEqual(answered(JSON.stringify(json)));
  });
});
