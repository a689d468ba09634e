import type { Unit } from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Row } from '../ui/Panel.js';
import { marksOf, withMarks } from './nextBands.js';
import type { BandText } from './typeText.js';

const Line = styled(Row)`
  align-items: end;
  margin-top: 0.25rem;
  > :first-child { width: 13rem; }
`;

interface FillBandsProps {
  readonly title: string;
  readonly bands: readonly BandText[];
  readonly unit: Unit;
  readonly onChange: (bands: readonly BandText[]) => void;
}

/** More marks after the last line, each band as wide as it: offered once that line has both ends. */
export function FillBands({ title, bands, unit, onChange }: FillBandsProps) {
  const [text, setText] = useState('');
  if (withMarks(bands, [], unit) === null) return null;
  const marks = marksOf(text);
  const fill = () => {
    const next = marks.length > 0 ? withMarks(bands, marks, unit) : null;
    if (next === null) return;
    onChange(next);
    setText('');
  };
  return (
    <Line>
      <Field
        label={`${title}: next marks`}
        placeholder="2-5, as wide"
        value={text}
        maxLength={120}
        onChange={setText}
        onKeyDown={(event) => event.key === 'Enter' && fill()}
      />
      {marks.length > 0 && (
        <Button onPress={fill}>
          Add {marks.length} {marks.length === 1 ? 'line' : 'lines'}
        </Button>
      )}
    </Line>
  );
}
