import type { Feature } from '@fettle/core';
import { bandsOf, FEATURE_TABLE, type JobDocument, partCount, partName, rowLayout } from '@fettle/core';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Row } from '../ui/Panel.js';
import { decodedText } from './decodedText.js';
import { withWord } from './markWords.js';

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(12rem, 1.6fr) minmax(10rem, 1fr);
  gap: 0.25rem 0.75rem;
  align-items: start;
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); }
  .told { grid-column: 1 / -1; font-size: var(--size-small); }
  input { font-size: var(--size-lead); letter-spacing: 0.08em; }
`;

interface RowFieldProps {
  readonly document: JobDocument;
  readonly feature: Feature;
  readonly text: string;
  /** True if it was typed before a reload and is not saved yet. */
  readonly isLeftOver: boolean;
  readonly first: 'front' | 'rear';
  readonly onType: (text: string) => void;
  readonly onLeave: () => void;
  readonly onTake: (text: string) => void;
  readonly onFirst: (first: 'front' | 'rear') => void;
}

/** One stamped row, typed as it is read: what cannot be, and what looks alike, is offered under it and never guessed. */
export function RowField({
  document,
  feature,
  text,
  isLeftOver,
  first,
  onType,
  onLeave,
  onTake,
  onFirst,
}: RowFieldProps) {
  const row = { ...rowLayout(document, feature), first };
  const decoded = decodedText(document, feature, text, first);
  const known = bandsOf(document.sheet, feature).map(({ mark }) => mark);
  const fault = decoded && !decoded.ok && decoded.reason !== 'empty' ? decoded.message : null;
  const unknown = decoded?.marks.filter(({ mark }) => mark === null) ?? [];
  const alike = decoded?.marks.filter(({ mark, lookalikes }) => mark !== null && lookalikes.length > 0) ?? [];
  const count = partCount(document.layout, feature);
  const word = FEATURE_TABLE[feature].name;
  const isEach = FEATURE_TABLE[feature].marked === 'each';
  const offer = (station: number, marks: readonly string[]) =>
    marks.map((mark) => (
      <Button key={mark} onPress={() => onTake(withWord(decoded!.marks, row, station, mark))}>
        {partName(feature, station)} is {mark}
      </Button>
    ));
  // Typed without its letter, a row that can be read in one way only gets it: it is seen in the box, and on the shaft.
  const whole =
    decoded && !decoded.ok && decoded.reason === 'prefix' && decoded.offers?.length === 1 ? decoded.offers[0]! : null;
  const leave = () => (whole === null ? onLeave() : onTake(whole));
  return (
    <Line data-row="">
      <Field
        aria-label={`${word}s as stamped, ${count} marks${row.prefix === '' ? '' : `, row starts with ${row.prefix}`}`}
        label=""
        figure
        value={text}
        maxLength={200}
        onChange={onType}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          // Leaving the box saves it; where no row is empty it stays, saved.
          const empty = [...window.document.querySelectorAll<HTMLInputElement>('[data-row] input')].find(
            (box) => box !== event.currentTarget && box.value.trim() === '',
          );
          if (empty) empty.focus();
          else leave();
        }}
        fault={fault}
        isLeftOver={isLeftOver}
        {...(isEach && !decoded?.ok ? { keptBy: 'it takes a mark for each' } : {})}
        hint={`${count} marks${row.prefix === '' ? '' : `, row starts with ${row.prefix}`}; on the sheet: ${known.join(', ')}`}
      />
      <Choice
        label={`${word}s: first mark ${isEach ? 'is of' : 'belongs to'}`}
        isLabelHidden
        value={first}
        options={[
          { value: 'front', label: `first mark: front, ${partName(feature, 1)}` },
          { value: 'rear', label: `first mark: rear, ${partName(feature, count)}` },
        ]}
        onChange={onFirst}
      />
      {decoded && !decoded.ok && decoded.offers !== undefined && (
        <div className="told">
          <Row>
            {decoded.offers.map((whole) => (
              <Button key={whole} onPress={() => onTake(whole)}>
                It is {whole}
              </Button>
            ))}
          </Row>
        </div>
      )}
      {unknown.length > 0 && (
        <div className="told" role="status">
          {unknown.map(({ station, typed, lookalikes }) => (
            <Row key={station}>
              <strong>
                {partName(feature, station)}: no mark “{typed}”.
              </strong>
              {lookalikes.length > 0 ? offer(station, lookalikes) : 'Check the part again, or the data sheet.'}
            </Row>
          ))}
        </div>
      )}
      {alike.length > 0 && (
        <div className="told">
          Easily misread:{' '}
          {alike.map(({ station, mark, lookalikes }) => (
            <span key={station}>
              {partName(feature, station)} reads {mark}, like {lookalikes.join(', ')} {offer(station, lookalikes)}{' '}
            </span>
          ))}
        </div>
      )}
    </Line>
  );
}
