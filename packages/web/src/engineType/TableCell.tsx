import {
  type TableCell as Cell,
  codedCell,
  type Family,
  type Paint,
  type SelectionCodes,
  type Unit,
} from '@fettle/core';
import styled from 'styled-components';
import { IntervalBar } from '../shaft/IntervalBar.js';
import { GradeName } from '../ui/GradeSwatch.js';
import { textOfCell } from './cellText.js';

const Under = styled.div`
  display: flex;
  flex-direction: column;
  gap: 0.1rem;
  min-height: 2.4rem;
  padding-top: 0.1rem;
  font-size: var(--size-small);
  .other { color: var(--accent); font-weight: 600; }
`;

interface TableCellProps {
  readonly family: Family;
  readonly codes: SelectionCodes | null;
  readonly housing: string;
  readonly journal: string;
  /** True if what is typed there can be read. */
  readonly isRead: boolean;
  /** What the generated table has instead, where it differs. */
  readonly better: Cell | undefined;
  readonly paintOf: (grade: string) => Paint | null;
  readonly unit: Unit;
}

/** What stands under a cell: its grades, the clearance that its bands imply, and what would be better. */
export function TableCell({ family, codes, housing, journal, isRead, better, paintOf, unit }: TableCellProps) {
  const coded = codes && codedCell(family, codes, housing, journal);
  return (
    <Under>
      {isRead && coded?.grades && (
        <span>
          {[...new Set([coded.grades.upper, coded.grades.lower])].map((grade, at) => (
            <span key={grade}>
              {at > 0 && ' / '}
              <GradeName name={grade} paint={paintOf(grade)} size={14} />
            </span>
          ))}
        </span>
      )}
      {coded?.interval && <IntervalBar interval={coded.interval} limits={codes!.limits} unit={unit} />}
      {better !== undefined && <span className="other">better: {textOfCell(better)}</span>}
    </Under>
  );
}
