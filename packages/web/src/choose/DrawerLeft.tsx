import {
  type AcceptedChoice,
  FAMILY_TABLE,
  type FitSolution,
  type FreeHalves,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobFit,
  type JobStation,
  roughText,
  shellsInOrder,
} from '@fettle/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useAsked } from '../fit/useAsked.js';
import { useClearances } from '../person/useClearances.js';
import { Panel, PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { ShowMore } from '../ui/ShowMore.js';
import { useShown } from '../ui/useShown.js';
import { missingText } from './missingText.js';

const Short = styled.tr`
  td:last-child { color: var(--close); font-weight: 700; }
`;

interface DrawerLeftProps {
  readonly document: JobDocument;
  readonly stations: ReadonlyMap<string, JobStation>;
  readonly halves: AcceptedChoice['stations'];
  readonly plan: FitSolution | null;
  readonly asked: JobFit;
  /** What the engine may take of the workshop's halves. */
  readonly free: FreeHalves | null;
}

/** What the shown choice takes from the drawer and what is left. */
export function DrawerLeft({ document, stations, halves, plan, asked, free }: DrawerLeftProps) {
  const taken = Object.values(halves).flatMap(({ upper, lower }) => [upper.shell, lower.shell]);
  const shells = useMemo(() => shellsInOrder(document), [document]);
  const body = useRef<HTMLTableSectionElement>(null);
  const used = new Map<string, number>();
  for (const id of taken) used.set(id, (used.get(id) ?? 0) + 1);
  const { shown, most, showMore } = useShown(shells, body, ({ id }) => used.has(id));
  const gradeOf = (id: string) => {
    const shell = document.shells[id];
    return shell
      ? `${shell.grade}${FAMILY_TABLE[shell.family].housingsMove ? ` for a ${FAMILY_TABLE[shell.family].word}` : ''}`
      : id;
  };
  const cost = plan?.cost ?? null;
  const { result: saved } = useAsked(
    asked.ok && cost !== null ? asked.problem : null,
    (search) => search.setSavings((asked as JobFit & { ok: true }).problem, cost!),
    String(cost),
  );
  const { unit } = document;
  const { shown: clearances } = useClearances(unit);
  /** What the clearance of a station would be, as far off its target. */
  const clearanceAt = (station: string, off: number) => roughText((stations.get(station)?.aim ?? 0) + off, clearances);
  // Told as what would be another: which stations, from how far off target to how far, and which need not be mixed.
  const dearest = (saved?.sets ?? []).filter(({ changes, unmixed }) => changes.length + unmixed.length > 0).slice(0, 4);
  return (
    <Panel>
      {dearest.length > 0 && (
        <>
          <PanelTitle>Short of stock</PanelTitle>
          <ul style={{ margin: '0.25rem 0 0.6rem', paddingLeft: '1.1rem', fontSize: 'var(--size-small)' }}>
            {dearest.map(({ shells: ids, changes, unmixed }) => (
              <li key={ids.join()}>{missingText(gradeOf(ids[0]!), changes, unmixed, clearanceAt)}</li>
            ))}
          </ul>
        </>
      )}
      <PanelTitle>Left in stock</PanelTitle>
      <Quiet>
        {shells.length === 0 ? 'No shells in it yet.' : 'Select a station for its calculation and its other pairs.'}
      </Quiet>
      <Table>
        <thead>
          <tr>
            <th>Shell</th>
            <th className="number">Wall</th>
            <th className="number">Used</th>
            <th className="number">Left</th>
          </tr>
        </thead>
        <tbody ref={body}>
          {shown.map(({ id, shell }) => {
            const count = used.get(id) ?? 0;
            const stock = shell.line === null ? shell.stock : (free?.get(shell.line) ?? 0);
            const left = stock === null ? null : stock - count;
            const Line = left === 0 ? Short : 'tr';
            return (
              <Line key={id}>
                <td>
                  {shell.grade} {document.withRods && `${shell.family} `}
                  {shell.half}
                </td>
                <td className="number">
                  {formatExactLength(shell.wall, document.unit, INSTRUMENT_DECIMALS[document.unit])}
                </td>
                <td className="number">{count || '·'}</td>
                <td className="number">{left === null ? 'not counted' : left === 0 ? 'none' : left}</td>
              </Line>
            );
          })}
        </tbody>
      </Table>
      <ShowMore
        shown={shown.length}
        all={shells.length}
        what="shells"
        {...(shown.length > most ? { which: 'the first and the selected ones' } : {})}
        onMore={showMore}
      />
    </Panel>
  );
}
