import { PAINTS, type Paint, type Unit } from '@fettle/core';
import { Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { PaintDab } from '../ui/GradeSwatch.js';
import { TypingGrid } from '../ui/TypingGrid.js';
import { FillBands } from './FillBands.js';
import { nextEdge } from './nextBands.js';
import { isBlank, type TypeFaults } from './readType.js';
import { type BandText, EMPTY_BAND } from './typeText.js';

const PaintChoice = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  > :first-child { min-width: 7rem; }
`;

/** Where a grade is made for: off the way of Enter, for most have none. */
const Place = styled(Field)`
  width: 6.5rem;
`;

const PAINT_OPTIONS: readonly { value: Paint | ''; label: string }[] = [
  { value: '', label: 'no paint' },
  ...PAINTS.map((paint) => ({ value: paint, label: paint })),
];

interface BandGridProps {
  readonly title: string;
  readonly what: string;
  readonly place: string;
  readonly bands: readonly BandText[];
  readonly faults: TypeFaults;
  readonly unit: Unit;
  readonly hasPaint?: boolean;
  /** True if they may be made for some places only. */
  readonly hasPlaces?: boolean;
  readonly onChange: (bands: readonly BandText[]) => void;
  readonly onRemove?: (at: number) => void;
}

const BAND_KEYS = ['mark', 'low', 'high'] as const;

/** Marks or grades with their bands: always one empty line more than is typed. */
export function BandGrid({
  title,
  what,
  place,
  bands,
  faults,
  unit,
  hasPaint = false,
  hasPlaces = false,
  onChange,
  onRemove,
}: BandGridProps) {
  const shown = bands.length === 0 || !isBlank(bands.at(-1)!) ? [...bands, EMPTY_BAND] : bands;
  const set = (row: number, part: Partial<BandText>) =>
    onChange(shown.map((band, at) => (at === row ? { ...band, ...part } : band)));
  const remove = onRemove ?? ((at: number) => onChange(bands.filter((_, other) => other !== at)));
  return (
    <div>
      <strong>{title}</strong>
      <TypingGrid
        name={title}
        columns={[
          { key: 'mark', label: what, width: hasPaint ? '6rem' : '4.5rem' },
          { key: 'low', label: `From, ${unit}`, width: '6.2rem', isFigure: true },
          { key: 'high', label: `To, ${unit}`, width: '6.2rem', isFigure: true },
        ]}
        rowCount={shown.length}
        label={(row, column) => `${title}, line ${row + 1}, ${[what.toLowerCase(), 'from', 'to'][column]}`}
        value={(row, column) => shown[row]![BAND_KEYS[column]!]}
        fault={(row, column) =>
          isBlank(shown[row]!) ? null : (faults[`${place}.${row}.${BAND_KEYS[column]}`] ?? null)
        }
        onType={(row, column, text) =>
          set(row, {
            // A band begins where the one before it ends.
            ...(column === 0 && isBlank(shown[row]!) ? nextEdge(shown.slice(0, row)) : {}),
            [BAND_KEYS[column]!]: text,
          })
        }
        onPaste={(row, column, block) => {
          const next = [...shown];
          block.forEach((line, down) => {
            const old = next[row + down] ?? EMPTY_BAND;
            const typed = Object.fromEntries(
              line.flatMap((text, across) => {
                const key = BAND_KEYS[column + across];
                return key ? [[key, text]] : [];
              }),
            );
            next[row + down] = { ...old, ...typed };
          });
          onChange(next);
        }}
        rowEnd={(row) => (
          <span style={{ display: 'inline-flex', alignItems: 'center' }}>
            {hasPaint && !isBlank(shown[row]!) && (
              <PaintChoice>
                <Choice
                  label={`${title}, line ${row + 1}, paint`}
                  isLabelHidden
                  value={shown[row]!.paint}
                  options={PAINT_OPTIONS}
                  onChange={(paint) => set(row, { paint })}
                />
                {shown[row]!.paint !== '' && <PaintDab paint={shown[row]!.paint as Paint} size={22} />}
              </PaintChoice>
            )}
            {hasPlaces && !isBlank(shown[row]!) && (
              <Place
                aria-label={`${title}, line ${row + 1}, only for place`}
                label=""
                placeholder="every main"
                value={shown[row]!.places ?? ''}
                maxLength={200}
                onChange={(places) => set(row, { places })}
                fault={faults[`${place}.${row}.places`] ?? null}
              />
            )}
            {!isBlank(shown[row]!) && (
              <Button $kind="quiet" aria-label={`Remove line ${row + 1} of ${title}`} onPress={() => remove(row)}>
                <Trash2 aria-hidden size={18} />
              </Button>
            )}
          </span>
        )}
      />
      <FillBands title={title} bands={bands} unit={unit} onChange={onChange} />
    </div>
  );
}
