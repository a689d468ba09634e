import { type SheetBlock, type SheetCell, sheetContent } from '@fettle/core';
import { format } from 'date-fns';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { Notice } from '../look/Notice.js';
import { StateMark } from '../look/StateMark.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { SheetActs } from './SheetActs.js';

const Paper = styled.article`
  width: 100%;
  max-width: 62rem;
  margin: 0 auto;
  padding: 1.5rem 2rem;
  background: var(--surface);
  border: var(--rule) solid var(--line-strong);
  h1 { font-size: var(--size-title); line-height: 1.15; overflow-wrap: anywhere; }
  h2 { font-size: 1.05rem; margin: 1rem 0 0.25rem; }
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
  @media (max-width: 640px) {
    padding: 1rem 0.75rem;
    .facts, .names { grid-template-columns: minmax(0, 1fr); }
  }
  footer { margin-top: 1rem; font-size: var(--size-small); color: var(--ink-soft); }
  @media print {
    max-width: none; padding: 0; border: 0;
    table, th, th.figure, td small { font-size: 0.6875rem; }
    th, td { padding: 0.1rem 0.15rem; }
    .facts { grid-template-columns: repeat(3, 1fr); }
    .names { grid-template-columns: 1fr 1fr 1fr; }
    @page { size: A4; margin: 14mm; }
    tr, h2 { break-inside: avoid; }
  }
`;

/** A table that is wider than a small screen moves by itself; on paper it is whole. */
const Scroll = styled.div`
  overflow-x: auto;
  @media print { overflow: visible; }
`;

function timeText(at: string): string {
  return format(new Date(at), 'd MMM yyyy HH:mm');
}

function Cell({ cell: { text, small, state }, isFigure }: { cell: SheetCell; isFigure: boolean }) {
  return (
    <td className={isFigure ? 'figure' : undefined}>
      {state && <StateMark state={state} />}
      {text}
      {small !== undefined && <small>{small}</small>}
    </td>
  );
}

function Table({ title, head, rows }: SheetBlock & { kind: 'table' }) {
  return (
    <>
      <h2>{title}</h2>
      <Scroll role="region" tabIndex={0} aria-label={`Table: ${title}`}>
        <table aria-label={title}>
          <thead>
            <tr>
              {head.map(({ text, isFigure }) => (
                <th key={text} className={isFigure ? 'figure' : undefined}>
                  {text}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, cells }) => (
              <tr key={key}>
                {cells.map((cell, at) => (
                  <Cell key={head[at]!.text} cell={cell} isFigure={head[at]!.isFigure} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}

/** The build sheet, to be printed and kept with the engine. */
export function SheetView() {
  const { document, readings, view } = useOpenJob();
  const { layout, choice } = document;
  const content = useMemo(() => sheetContent(document, readings), [document, readings]);
  const facts = [
    ...content.facts.map(({ label, text, at }) => ({ label, text: at ? `${text}, ${timeText(at)}` : text })),
    { label: 'Version', text: view ? `${view.version}, ${timeText(view.updatedAt)}` : 'not on the server yet' },
  ];
  return (
    <>
      <SheetActs />
      {!choice && (
        <div className="no-print">
          <Notice>No choice is accepted yet: the sheet prints the sizes with the halves left blank.</Notice>
        </div>
      )}
      <Paper aria-label="Build sheet">
        <h1>{document.name}</h1>
        <dl className="facts">
          {facts.map(({ label, text }) => (
            <div key={label}>
              <dt>{label}: </dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <ShaftDrawing layout={layout} height={104} />
        {content.tables.map((table) => (
          <Table {...table} key={table.key} />
        ))}
        <div className="names">
          <span>Fitted by, date</span>
          <span>Checked by, date</span>
          <span>Remarks</span>
        </div>
        <footer>{content.notes.join(' ')}</footer>
      </Paper>
    </>
  );
}
