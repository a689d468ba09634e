import { type BuildSheet, momentText, STATE_WORDS, type StationState, sheetInThousandths } from '@fettle/core';
import { type ReactNode, useMemo } from 'react';
import styled from 'styled-components';
import { useThousandths } from '../person/useClearances.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { StateMark } from '../ui/StateMark.js';

const Article = styled.article`
  width: 100%;
  max-width: 62rem;
  margin: 0 auto;
  padding: 1.5rem 2rem;
  background: var(--surface);
  border: var(--rule) solid var(--line-strong);
  h2 { font-size: var(--size-title); line-height: 1.15; overflow-wrap: anywhere; }
  h3 { font-size: 1.05rem; margin: 1rem 0 0.25rem; }
  table { width: 100%; border-collapse: collapse; font-size: 0.875rem; }
  th, td { border: 1px solid var(--line-strong); padding: 0.2rem 0.25rem; text-align: left; }
  th, th.figure { font-family: var(--text); font-size: var(--size-small); }
  td.figure, th.figure { text-align: right; }
  td small { display: block; color: var(--ink-soft); font-size: var(--size-small); line-height: 1.15; }
  .facts { display: grid; grid-template-columns: repeat(3, 1fr); gap: 0.15rem 1.5rem; margin-top: 0.5rem; font-size: 0.9375rem; }
  .facts dt { display: inline; color: var(--ink-soft); }
  .facts dd { display: inline; font-weight: 600; }
  .names { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 2rem; margin-top: 2.25rem; font-size: var(--size-small); }
  .names span { border-top: 1px solid var(--ink); padding-top: 0.2rem; }
  .signed { margin-top: 0.75rem; }
  @media (max-width: 640px) {
    padding: 1rem 0.75rem;
    .facts, .names { grid-template-columns: minmax(0, 1fr); }
  }
  footer { margin-top: 1rem; font-size: var(--size-small); color: var(--ink-soft); overflow-wrap: anywhere; }
  @media print {
    max-width: none; padding: 0; border: 0;
    table, th, th.figure, td small { font-size: 0.6875rem; }
    th, td { padding: 0.1rem 0.15rem; }
    .facts { grid-template-columns: repeat(3, 1fr); }
    .names { grid-template-columns: 1fr 1fr 1fr; }
    .readings { break-before: page; }
    @page { size: auto; margin: 14mm; }
    tr, h3 { break-inside: avoid; }
  }
`;

/** A table that is wider than a small screen moves by itself; on paper it is whole. */
const Scroll = styled.div`
  overflow-x: auto;
  @media print { overflow: visible; }
`;

type Table = BuildSheet['tables'][number];

function Cell({
  cell: { text, small, state, at },
  isFigure,
}: {
  cell: Table['rows'][number][number];
  isFigure: boolean;
}) {
  return (
    <td className={isFigure ? 'figure' : undefined}>
      {state !== undefined && state in STATE_WORDS && <StateMark state={state as StationState} />}
      {text}
      {at !== undefined && momentText(at)}
      {small !== undefined && <small>{small}</small>}
    </td>
  );
}

function SheetTable({ title, head, rows, figures }: Table) {
  const isFigure = (at: number) => figures?.[at] ?? false;
  return (
    <>
      <h3>{title}</h3>
      <Scroll role="region" tabIndex={0} aria-label={`Table: ${title}`}>
        <table aria-label={title}>
          <thead>
            <tr>
              {head.map((text, at) => (
                <th key={text} className={isFigure(at) ? 'figure' : undefined}>
                  {text}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, row) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row of a sheet is its place in its table
              <tr key={row}>
                {cells.map((cell, at) => (
                  <Cell key={head[at]!} cell={cell} isFigure={isFigure(at)} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}

interface PaperProps {
  readonly label: string;
  readonly sheet: BuildSheet;
  /** Facts that are not of the sheet itself. */
  readonly more?: readonly { readonly label: string; readonly text: string }[];
  /** Names and dates: lines to fill in, or who signed. */
  readonly names: ReactNode;
}

/** A build sheet, to be looked at and printed: what was found and done first, every reading on a page of its own. */
export function Paper({ label, sheet: stored, more = [], names }: PaperProps) {
  const isThou = useThousandths();
  const sheet = useMemo(() => (isThou ? sheetInThousandths(stored) : stored), [isThou, stored]);
  const facts = [
    ...sheet.facts.map(({ label: name, text, at }) => ({
      label: name,
      text: at === undefined ? text : `${text}, ${momentText(at)}`,
    })),
    ...more,
  ];
  const readings = sheet.tables.filter(({ part }) => part === 'readings');
  return (
    <Article aria-label={label}>
      <h2>{sheet.engine}</h2>
      <dl className="facts">
        {facts.map(({ label: name, text }) => (
          <div key={name}>
            <dt>{name}: </dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      {sheet.layout && <ShaftDrawing layout={sheet.layout} height={104} />}
      {sheet.tables
        .filter(({ part }) => part !== 'readings')
        .map((table) => (
          <SheetTable {...table} key={table.title} />
        ))}
      {names}
      <footer>{sheet.notes.join(' ')}</footer>
      {readings.length > 0 && (
        <div className="readings">
          {readings.map((table) => (
            <SheetTable {...table} key={table.title} />
          ))}
        </div>
      )}
    </Article>
  );
}
