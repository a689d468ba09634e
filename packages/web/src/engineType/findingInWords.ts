import type { TableFinding } from '@fettle/core';
import { CLEARANCE_DECIMALS, formatExactLength, type Nanometres, type Unit } from '@fettle/core';

/** A finding in words: what is wrong, by how much, and what to look at. */
export function findingInWords(finding: TableFinding, unit: Unit): string {
  const exact = (value: Nanometres) => `${formatExactLength(value, unit, CLEARANCE_DECIMALS[unit])} ${unit}`;
  const parts = { housing: 'housing bands', journal: 'journal bands', grades: 'grades' } as const;
  switch (finding.kind) {
    case 'outside-limits': {
      const ends = [
        ...(finding.below > 0 ? [`${exact(finding.below)} too tight`] : []),
        ...(finding.above > 0 ? [`${exact(finding.above)} too loose`] : []),
      ];
      return `${finding.housing} × ${finding.journal} can come out ${ends.join(' and ')}.`;
    }
    case 'missing-cell':
      return `${finding.housing} × ${finding.journal} has no grade.`;
    case 'unknown-mark':
      return `The table has a ${finding.feature} mark ${finding.mark} that has no band.`;
    case 'unknown-grade':
      return `${finding.housing} × ${finding.journal} calls for ${finding.grade}, which is not a grade here.`;
    case 'unreachable-grade':
      return `No cell uses ${finding.grade}.`;
    case 'gap':
      return `Between ${finding.between[0]} and ${finding.between[1]} (${parts[finding.feature]}) ${exact(finding.by)} are left out: a part could fall there.`;
    case 'overlap':
      return `${finding.between[0]} and ${finding.between[1]} (${parts[finding.feature]}) share ${exact(finding.by)}.`;
    case 'not-monotone': {
      const from = `${finding.from.housing} × ${finding.from.journal}`;
      const to = `${finding.to.housing} × ${finding.to.journal}`;
      return finding.along === 'housing'
        ? `From ${from} to ${to} the housing grows and the walls get thinner: one is misread.`
        : `From ${from} to ${to} the journal grows and the walls get thicker: one is misread.`;
    }
  }
}
