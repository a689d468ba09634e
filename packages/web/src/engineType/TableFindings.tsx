import type { SelectionCodes, TableFinding, Unit } from '@fettle/core';
import { CircleCheck } from 'lucide-react';
import styled from 'styled-components';
import { Quiet } from '../ui/Panel.js';
import { findingInWords } from './findingInWords.js';

const Findings = styled.ul`
  margin-top: 0.5rem;
  li { padding: 0.3rem 0; border-top: var(--rule) solid var(--line); }
`;

interface TableFindingsProps {
  readonly codes: SelectionCodes;
  readonly findings: readonly TableFinding[];
  readonly unit: Unit;
}

/** What does not hold together in a selection table. */
export function TableFindings({ codes, findings, unit }: TableFindingsProps) {
  return (
    <section aria-label="Problems">
      {findings.length === 0 ? (
        <p style={{ display: 'flex', gap: '0.4rem', alignItems: 'center', marginTop: '0.6rem' }}>
          <CircleCheck aria-hidden size={20} color="var(--inside)" /> No problems: every cell is filled, in limits, and
          steps the right way.
        </p>
      ) : (
        <>
          <p style={{ marginTop: '0.6rem', fontWeight: 700 }}>
            {findings.length === 1 ? 'One item to check' : `${findings.length} items to check`}
          </p>
          <Findings>
            {findings.slice(0, 30).map((finding) => (
              <li key={findingInWords(finding, unit)}>{findingInWords(finding, unit)}</li>
            ))}
            {findings.length > 30 && <li>and {findings.length - 30} more.</li>}
          </Findings>
        </>
      )}
      {!codes.limits && <Quiet>Cells are not judged: no limits for this oil clearance.</Quiet>}
    </section>
  );
}
