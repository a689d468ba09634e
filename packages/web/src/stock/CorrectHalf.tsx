import { FAMILY_TABLE, type JobShell, readPlaces } from '@fettle/core';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { FieldPairs } from '../ui/Fold.js';
import { Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';

interface CorrectHalfProps {
  readonly job: string;
  readonly id: string;
  readonly shell: JobShell;
  readonly onChange: (part: Partial<Pick<JobShell, 'series' | 'grade' | 'positions'>>) => void;
  readonly onClose: () => void;
}

interface WordProps {
  readonly job: string;
  readonly id: string;
  readonly field: 'series' | 'grade' | 'places';
  readonly isOptional?: boolean;
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly onCommit: (text: string) => void;
}

function placesFault(text: string): string | null {
  const read = readPlaces(text);
  return read.ok ? null : read.message;
}

function Word({ job, id, field, label, value, most, isOptional = false, onCommit }: WordProps) {
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: id, field }, value);
  const isEmpty = text.trim() === '' && !isOptional;
  const fault = isEmpty ? 'Needed here.' : field === 'places' ? placesFault(text) : null;
  return (
    <Field
      label={label}
      value={text}
      maxLength={most}
      autoFocus={field === 'grade'}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={fault}
      onBlur={() => {
        if (fault !== null) return;
        settled(text.trim());
        if (text.trim() !== value) onCommit(text.trim());
      }}
    />
  );
}

/** A half whose grade or series was typed wrong: put right without taking it out, so that choices of it stay. */
export function CorrectHalf({ job, id, shell, onChange, onClose }: CorrectHalfProps) {
  const word = { job, id };
  return (
    <Ask aria-label={`Correct ${shell.grade} ${shell.half}`}>
      <FieldPairs>
        <Word
          {...word}
          field="grade"
          label="Grade"
          value={shell.grade}
          most={40}
          onCommit={(grade) => onChange({ grade })}
        />
        <Word
          {...word}
          field="series"
          label="Series"
          value={shell.series}
          most={60}
          onCommit={(series) => onChange({ series })}
        />
        {FAMILY_TABLE[shell.family].isInLine && (
          <Word
            {...word}
            field="places"
            label="Only for position, blank for every main"
            value={shell.positions?.join(', ') ?? ''}
            most={200}
            isOptional
            onCommit={(text) => {
              const read = readPlaces(text);
              if (read.ok) onChange({ positions: read.positions });
            }}
          />
        )}
      </FieldPairs>
      <Row style={{ marginTop: '0.5rem' }}>
        <Button onPress={onClose}>Done</Button>
      </Row>
    </Ask>
  );
}
