import {
  type Budget,
  budgetUncertainty,
  COVERAGE,
  FINE_DECIMALS,
  formatLength,
  nanometres,
  type ShownUnit,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Table } from '../ui/Panel.js';

const Narrow = styled(Table)`
  td, th { font-size: var(--size-small); }
  tr.sum td { border-top: 2px solid var(--ink); font-weight: 700; }
`;

interface BudgetTableProps {
  /** What the ± is of, for a screen reader: `the clearance of M1`. */
  readonly of: string;
  readonly budget: Budget;
  readonly unit: ShownUnit;
  /** What the ± that is told is of the standard uncertainty: 2, or more where it rests on few repeats. */
  readonly factor?: number;
  /** What the button says; left out: `Where ± comes from`. */
  readonly act?: string;
}

/** How often a source counts: `2 ×`, `−1 ×`. */
function timesText(sensitivity: number): string {
  const rounded = Number(sensitivity.toFixed(2));
  return `${rounded < 0 ? '−' : ''}${Math.abs(rounded)} ×`;
}

/** What a ± comes from, on request: each source with what it is known to, how often it counts and its share, the largest first. */
export function BudgetTable({ of, budget, unit, factor = COVERAGE, act = 'Where ± comes from' }: BudgetTableProps) {
  const [isOpen, setOpen] = useState(false);
  const u = budgetUncertainty(budget);
  if (u === 0) return null;
  const fine = (value: number) => formatLength(nanometres(Math.round(value)), unit, FINE_DECIMALS[unit]);
  const rows = budget
    .map((one) => ({ ...one, share: ((one.u * one.sensitivity) / u) ** 2 }))
    .sort((one, other) => other.share - one.share);
  return (
    <>
      <Button
        $kind="quiet"
        aria-expanded={isOpen}
        aria-label={isOpen ? `Close the budget of ${of}` : `${act}: ${of}`}
        onPress={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Close the budget' : act}
      </Button>
      {isOpen && (
        <Narrow aria-label={`Uncertainty of ${of}`}>
          <thead>
            <tr>
              <th>Source</th>
              <th className="number">u, {unit}</th>
              <th className="number">Counts</th>
              <th className="number">Share</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, words, u: own, in: other, sensitivity, share }) => (
              <tr key={key}>
                <td>{words}</td>
                <td className="number">{other === undefined ? fine(own) : `${own} ${other}`}</td>
                <td className="number">
                  {other === undefined ? timesText(sensitivity) : `${fine(sensitivity)} / ${other}`}
                </td>
                <td className="number">{Math.round(100 * share)} %</td>
              </tr>
            ))}
            <tr className="sum">
              <td>Together; ± is {Number(factor.toFixed(1))} times it</td>
              <td className="number">{fine(u)}</td>
              <td />
              <td className="number">100 %</td>
            </tr>
          </tbody>
        </Narrow>
      )}
    </>
  );
}
