import { INSTRUMENT_STATE_WORDS, type InstrumentSummary, instrumentKind } from '@fettle/core';
import { CircleCheck, Clock, type LucideIcon, Minus, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { DataColumn } from '../ui/dataColumns.js';
import { type CalibrationStanding, checkWords, rangeWords, standingOf, standingWords } from './instrumentWords.js';

const ICONS: Readonly<Record<CalibrationStanding, { readonly Icon: LucideIcon; readonly isAmiss: boolean }>> = {
  wrong: { Icon: TriangleAlert, isAmiss: true },
  overdue: { Icon: TriangleAlert, isAmiss: true },
  soon: { Icon: Clock, isAmiss: false },
  held: { Icon: CircleCheck, isAmiss: false },
  none: { Icon: Minus, isAmiss: false },
};

const Standing = styled.span<{ $isAmiss: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  font-weight: ${({ $isAmiss }) => ($isAmiss ? 700 : 400)};
  color: ${({ $isAmiss }) => ($isAmiss ? 'var(--tight)' : 'inherit')};
  svg { flex: none; }
`;

/** How the calibration of an instrument stands: a shape, a word and a colour. */
export function CalibrationMark({ of }: { readonly of: Pick<InstrumentSummary, 'calibratedOn' | 'due' | 'isWrong'> }) {
  const { Icon, isAmiss } = ICONS[standingOf(of)];
  return (
    <Standing $isAmiss={isAmiss}>
      <Icon aria-hidden size={16} />
      {standingWords(of)}
    </Standing>
  );
}

/** The columns of the list of instruments. */
export const instrumentColumns: readonly DataColumn<InstrumentSummary>[] = [
  {
    key: 'number',
    head: 'Number',
    cell: ({ id, instrument }) => (
      <Link to={`/instruments/${id}`}>
        <strong>{instrument.number}</strong>
      </Link>
    ),
    sortBy: ({ instrument }) => instrument.number,
  },
  {
    key: 'kind',
    head: 'Kind',
    cell: ({ instrument }) => instrumentKind(instrument.kind).word,
    sortBy: ({ instrument }) => instrumentKind(instrument.kind).word,
  },
  {
    key: 'range',
    head: 'Reads, or size',
    cell: ({ instrument }) => (
      <span className="figure" style={{ whiteSpace: 'normal' }}>
        {rangeWords(instrument)}
      </span>
    ),
    sortBy: ({ instrument }) => instrument.size ?? instrument.range?.low ?? null,
  },
  {
    key: 'where',
    head: 'Kept by, location',
    cell: ({ instrument: { holder, place, state } }) =>
      [state === 'inUse' ? '' : INSTRUMENT_STATE_WORDS[state], holder, place].filter((word) => word !== '').join(', '),
    sortBy: ({ instrument: { holder, place } }) => `${holder} ${place}`,
  },
  {
    key: 'calibration',
    head: 'Calibration',
    cell: (one) => <CalibrationMark of={one} />,
    sortBy: ({ due }) => due,
  },
  {
    key: 'check',
    head: 'Last zero check',
    cell: (one) => checkWords(one, one.instrument.unit),
    sortBy: ({ lastCheck }) => lastCheck?.at ?? null,
  },
  {
    key: 'readings',
    head: 'Readings',
    isFigure: true,
    cell: ({ readings }) => readings,
    sortBy: ({ readings }) => readings,
  },
];
