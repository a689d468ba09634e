import {
  type CodedStation,
  chanceText,
  clearanceLimitsOf,
  FAMILIES,
  FAMILY_TABLE,
  FEATURE_TABLE,
  type Feature,
  featureOf,
  PAINTS,
  type Reading,
  type ShaftColumn,
  STATE_WORDS,
  workedOutText,
} from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { paintOf } from '../halves/paintOf.js';
import { ClearanceUnit, IntervalBar } from '../shaft/IntervalBar.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import { GradeName, PaintDab } from '../ui/GradeSwatch.js';
import { Quiet } from '../ui/Panel.js';
import { StateShape } from '../ui/StateMark.js';
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

const NOTHING = <span className="figure">·</span>;

/** What is known of a station from its marks alone. */
function InLimits({ one, contradiction }: { one: CodedStation; contradiction: string | undefined }) {
  if (contradiction !== undefined) {
    const isBlocked = contradiction === 'blocked';
    return (
      <Called>
        <StateShape state={isBlocked ? 'blocked' : 'close'} />
        <strong>{isBlocked ? STATE_WORDS.blocked : 'does not match mark'}</strong>
      </Called>
    );
  }
  if (one.inside === null) return <Quiet>not judged</Quiet>;
  return (
    <Called>
      <StateShape state={one.inside === 1 ? 'inside' : 'close'} />
      <strong>{chanceText(one.inside)}</strong>
    </Called>
  );
}

/** What the table calls for at each station, the clearance that gives, and how likely it is in limits. */
function calledRows({ shown, coded, contradicted }: Codes): ShaftRow[] {
  const { unit } = shown;
  const cell = (draw: (one: CodedStation, key: string) => ReactNode) => (column: ShaftColumn) => {
    const one = coded.get(column.key);
    return one ? draw(one, column.key) : NOTHING;
  };
  return [
    {
      key: 'called',
      label: (
        <>
          Table calls for
          <small>upper, lower</small>
        </>
      ),
      cell: cell(({ grades, family }) =>
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
          <small>
            by marks, <ClearanceUnit unit={unit} />
          </small>
        </>
      ),
      cell: cell(({ interval, family }) =>
        interval ? (
          <IntervalBar interval={interval} limits={clearanceLimitsOf(shown.limits, family)} unit={unit} />
        ) : (
          NOTHING
        ),
      ),
    },
    {
      key: 'chance',
      label: 'In limits',
      cell: cell((one, key) => <InLimits one={one} contradiction={contradicted.get(key)} />),
    },
  ];
}

/** The sizes that were read, beside the marks; no row where none was. */
function readRows({ features, shown, placed, parts }: Codes, readings: readonly Reading[]): ShaftRow[] {
  const isRead = (feature: Feature) => readings.some((reading) => reading.feature === feature && reading.nm !== null);
  return (['housing', 'journal'] as const).flatMap((role) => {
    const known = FAMILIES.map((family) => featureOf(family, role)).filter((feature) => features.includes(feature));
    if (!known.some(isRead)) return [];
    return [
      {
        key: `read ${role}`,
        label: (
          <>
            {role === 'housing' ? 'Bore read' : 'Journal read'}
            <small>{shown.unit}</small>
          </>
        ),
        cell: ({ key, number, family }: ShaftColumn) => {
          const feature = featureOf(family, role);
          const place = FAMILY_TABLE[family].housingsMove && role === 'housing' ? placed[key] : number;
          const part = place === undefined ? undefined : parts[feature][place - 1];
          if (part?.size?.kind !== 'read') return NOTHING;
          return (
            <Called>
              <span className="figure">{workedOutText(part.size.nominal, shown.unit)}</span>
              {part.disagreement && <strong>does not match mark</strong>}
            </Called>
          );
        },
      },
    ];
  });
}

/** Each stamped row as it is typed, and its marks under their stations. */
function markRows({ features, decoded, placed }: Codes, typed: (feature: Feature) => ReactNode): ShaftRow[] {
  const mark = (feature: Feature, number: number) => <MarkCell decoded={decoded} feature={feature} number={number} />;
  const housing = ({ key, number, family }: ShaftColumn) => {
    const feature = featureOf(family, 'housing');
    if (!FAMILY_TABLE[family].housingsMove) return mark(feature, number);
    const rod = placed[key];
    if (rod === undefined) return <Quiet>not placed</Quiet>;
    return (
      <Called>
        R{rod} {mark(feature, rod)}
      </Called>
    );
  };
  return features.flatMap((feature) => {
    const { family, role, name } = FEATURE_TABLE[feature];
    const isMoved = role === 'housing' && FAMILY_TABLE[family].housingsMove;
    return [
      { key: `typed ${feature}`, label: `${name}s`, wide: typed(feature) },
      {
        key: feature,
        label: <small>{isMoved ? 'rod placed there' : 'as measured'}</small>,
        cell: (column: ShaftColumn) => {
          if (column.family !== family) return NOTHING;
          return role === 'housing' ? housing(column) : mark(feature, column.number);
        },
      },
    ];
  });
}

/**
 * What stands under the shaft, mains and pins together: each row as it is stamped, its marks, what was read, what the table calls for and how
 * well that is known.
 *
 * @param typed where a stamped row is typed
 */
export function codesRows(
  codes: Codes,
  readings: readonly Reading[],
  typed: (feature: Feature) => ReactNode,
): ShaftRow[] {
  return [
    { key: 'station', label: 'Station', cell: ({ key }) => <strong>{key}</strong> },
    ...markRows(codes, typed),
    ...readRows(codes, readings),
    ...calledRows(codes),
  ];
}
