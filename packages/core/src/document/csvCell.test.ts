import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellOfCsv, csvCell } from './csvCell.js';

describe('a cell of a CSV file', () => {
  it('begins no formula, and is the same when it is read again', () => {
    const signs = fc.constantFrom(
      "'",
      '=',
      '+',
      '-',
      '@',
      '\t',
      '\r',
      '\n',
      '1',
      '.',
      ',',
      ';',
      '|',
      'A',
      '(',
      '"',
      ' ',
    );
    fc.assert(
      fc.property(fc.array(signs, { maxLength: 8 }), (list) => {
        const cell = list.join('');
        const written = csvCell(cell);
        expect(cellOfCsv(written)).toBe(cell);
        if (/^[=@\t\r]/u.test(written)) throw new Error(`${JSON.stringify(written)} begins a formula`);
        // However a spreadsheet cuts it.
        for (const part of written.split(/[,;|\t\r\n]/u)) {
          if (/^[=@]/u.test(part)) throw new Error(`${JSON.stringify(written)} holds a formula`);
          if (/^[+-]/u.test(part) && written !== part) expect(part).toMatch(/^[+-]\d*[.]?\d*$/u);
        }
        // A sign in front is left to plain numbers only.
        if (/^[+-]/u.test(written)) expect(Number.isFinite(Number(written.replace(',', '.')))).toBe(true);
      }),
    );
  });

  it('keeps deviations as numbers', () => {
    for (const cell of ['-2.5', '+0.0015', '−2', '62,003', '-,5', '']) expect(csvCell(cell)).toBe(cell);
    expect(['-2.5+cmd', '=HYPERLINK("x")', "'=1"].map(csvCell)).toEqual(["'-2.5+cmd", `'=HYPERLINK("x")`, "''=1"]);
  });
});
