import { columnText, type Nanometres, type Unit } from '@fettle/core';
import { useClearances } from '../person/useClearances.js';
import { Table } from '../ui/Panel.js';

interface PassesTableProps {
  /** What the table is called. */
  readonly label: string;
  /** Head of what comes off in a pass. */
  readonly off: string;
  readonly unit: Unit;
  readonly passes: readonly { readonly off: Nanometres; readonly expected: Nanometres }[];
}

/** Passes over a plate: what comes off in each, and what should be read afterwards. */
export function PassesTable({ label, off, unit, passes }: PassesTableProps) {
  const { shown } = useClearances(unit);
  const text = columnText(
    passes.flatMap((pass) => [pass.off, pass.expected]),
    shown,
  );
  return (
    <Table aria-label={label}>
      <thead>
        <tr>
          <th className="number">Pass</th>
          <th className="number">{off}</th>
          <th className="number">Then read</th>
        </tr>
      </thead>
      <tbody>
        {passes.map((pass, at) => (
          <tr key={pass.expected}>
            <td className="number">{at + 1}</td>
            <td className="number">
              {text(pass.off)} {shown}
            </td>
            <td className="number">
              {text(pass.expected)} {shown}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
