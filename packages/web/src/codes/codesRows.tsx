import {
  type CodedStation,
  chanceText,
  clearanceLimitsOf,
  type Family,
  type Feature,
  featureOf,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  PAINTS,
  type Reading,
} from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { GradeName, PaintDab } from '../look/GradeSwatch.js';
import { Quiet } from '../look/Panel.js';
import { STATE_WORDS, StateShape } from '../look/StateMark.js';
import { IntervalBar } from '../shaft/IntervalBar.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import type { ShaftColumn } from '../shaft/shaftColumns.js';
import { paintOf } from './paintOf.js';
import type { Codes } from './useCodes.js';

const Mark = styled.strong`
  font-family: var(--figures);
  font-size: clamp(1.1rem, 26cqi, 1.6rem);
  line-height: 1.2;
  &.unknown { color: var(--tight); text-decoration: underline wavy; }
`;

const Called = styled.span`
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.1rem;
  font-size: var(--size-small);
  line-height: 1.2;
`;

/** One mark as it was typed, underlined where the sheet has no such mark. */
function MarkCell({ decoded, feature, number }: Pick<Codes, 'decoded'> & { feature: Feature; number: number }) {
  const row = decoded.get(feature);
  const found = row?.marks.find(({ station }) => station === number);
  if (!found) return <span className="figure">·</span>;
  const isWrong = found.mark === null || row?.ok === false;
  const paint = PAINTS.find((one) => one === found.typed.toLowerCase());
  return (
    <Mark className={isWrong ? 'unknown' : ''}>
      {paint && <PaintDab paint={paint} size={20} />} {found.typed}
    </Mark>
  );
}

/** What stands under the shaft for one family: the marks, what was read, what the table calls for and how well that is known. */
export function codesRows(
  { features, shown, decoded, coded, placed, parts, contradicted }: Codes,
  readings: readonly Reading[],
  family: Family,
): ShaftRow[] {
  const { unit } = shown;
  const markCell = (feature: Feature, number: number) => (
    <MarkCell decoded={decoded} feature={feature} number={number} />
  );
  const [housing, journal] = [featureOf(family, 'housing'), featureOf(family, 'journal')];
  const codes = clearanceLimitsOf(shown.limits, family);
  const cell = (draw: (one: CodedStation) => ReactNode) => (column: ShaftColumn) => {
    const one = coded.get(column.key);
    return one ? draw(one) : <span className="figure">·</span>;
  };
  const calledRows: ShaftRow[] = [
    {
      key: 'called',
      label: (
        <>
          Table calls for
          <small>upper, lower</small>
        </>
      ),
      cell: cell(({ grades }) =>
        grades === null ? (
          <Quiet>no cell</Quiet>
        ) : (
          <Called>
            {(grades.upper === grades.lower ? [grades.upper] : [grades.upper, grades.lower]).map((grade) => (
              <GradeName key={grade} name={grade} paint={paintOf(shown, family, grade)} />
            ))}
          </Called>
        ),
      ),
    },
    {
      key: 'interval',
      label: (
        <>
          Clearance
          <small>by marks, {unit}</small>
        </>
      ),
      cell: cell(({ interval }) =>
        interval ? <IntervalBar interval={interval} limits={codes} unit={unit} /> : <span className="figure">·</span>,
      ),
    },
    {
      key: 'chance',
      label: 'Inside',
      cell: (column) => {
        const one = coded.get(column.key);
        if (!one) return <span className="figure">·</span>;
        const { inside } = one;
        const contradiction = contradicted.get(column.key);
        return contradiction !== undefined ? (
          <Called>
            <StateShape state={contradiction === 'blocked' ? 'blocked' : 'close'} />
            <strong>{contradiction === 'blocked' ? STATE_WORDS.blocked : 'not as marked'}</strong>
          </Called>
        ) : inside === null ? (
          <Quiet>not judged</Quiet>
        ) : (
          <Called>
            <StateShape state={inside === 1 ? 'inside' : 'close'} />
            <strong>{chanceText(inside)}</strong>
          </Called>
        );
      },
    },
  ];
  const isRead = (feature: Feature) => readings.some((reading) => reading.feature === feature && reading.nm !== null);
  const readRows: ShaftRow[] = [housing, journal].filter(isRead).map((feature) => ({
    key: `read ${feature}`,
    label: (
      <>
        {feature === housing ? 'Bore read' : family === 'main' ? 'Journal read' : 'Pin read'}
        <small>{unit}</small>
      </>
    ),
    cell: ({ key, number }) => {
      const place = family === 'rod' && feature === housing ? placed[key] : number;
      const part = place === undefined ? undefined : parts[feature][place - 1];
      if (part?.size?.kind !== 'read') return <span className="figure">·</span>;
      return (
        <Called>
          <span className="figure">{formatExactLength(part.size.nominal, unit, INSTRUMENT_DECIMALS[unit])}</span>
          {part.disagreement && <strong>not as marked</strong>}
        </Called>
      );
    },
  }));
  return [
    { key: 'station', label: 'Station', cell: ({ key }) => <strong>{key}</strong> },
    ...(features.includes(housing)
      ? [
          {
            key: 'housing',
            label: family === 'main' ? 'Bore' : 'Rod placed here',
            cell: ({ key, number }: ShaftColumn) => {
              if (family === 'main') return markCell(housing, number);
              const rod = placed[key];
              return rod === undefined ? (
                <Quiet>not placed</Quiet>
              ) : (
                <Called>
                  R{rod} {markCell(housing, rod)}
                </Called>
              );
            },
          },
        ]
      : []),
    ...(features.includes(journal)
      ? [
          {
            key: 'journal',
            label: family === 'main' ? 'Journal' : 'Pin',
            cell: ({ number }: ShaftColumn) => markCell(journal, number),
          },
        ]
      : []),
    ...readRows,
    ...(family === 'rod' && ![...coded.values()].some((one) => one.family === 'rod') ? [] : calledRows),
  ];
}
