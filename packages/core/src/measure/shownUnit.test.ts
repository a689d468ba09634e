import { describe, expect, it } from 'vitest';
import { formatLength } from './formatLength.js';
import { lengthText, roughText } from './lengthText.js';
import { nanometres } from './nanometres.js';
import { inThousandths, thousandths, unitFor } from './shownUnit.js';

describe('clearances in thousandths of an inch', () => {
  it('move the point by three places, whatever the figure', () => {
    for (const [inches, thou] of [
      ['0.00234', '2.34'],
      ['.0023', '2.3'],
      ['+0.0005', '+0.5'],
      ['−0.00105', '−1.05'],
      ['0.012', '12'],
      ['0.0000', '0.0'],
      ['1.2345', '1234.5'],
    ] as const) {
      expect(thousandths(inches), inches).toBe(thou);
    }
    // Any clearance, shown either way, is the same length to the last digit.
    for (let nm = -60_000; nm <= 500_000; nm += 1_777) {
      const inches = formatLength(nanometres(nm), 'in', 5);
      expect(thousandths(inches)).toBe(formatLength(nanometres(nm), 'thou', 2));
    }
  });

  it('leave sizes in inches, in figures and in sentences', () => {
    expect(lengthText(59_436, 'thou')).toBe('2.34 thou');
    expect(roughText(62_196_980, 'thou')).toBe('2.44870 in');
    expect(unitFor(-508_000, 'thou')).toBe('in');
    expect(unitFor(507_999, 'thou')).toBe('thou');
    expect(inThousandths('M3: 0.00120 to 0.00250 in; bore 2.4487 in')).toBe('M3: 1.20 to 2.50 thou; bore 2.4487 in');
    expect(inThousandths('Washers of 0.0985 to 0.1005 in leave 0.004 in.')).toBe(
      'Washers of 0.0985 to 0.1005 in leave 4 thou.',
    );
    expect(inThousandths('0.035 mm in M3; 2 in stock')).toBe('0.035 mm in M3; 2 in stock');
  });
});
