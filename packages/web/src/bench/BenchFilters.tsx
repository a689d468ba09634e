import { STAGES, type Stage, stageName } from '@fettle/core';
import { Choice } from '../ui/Choice.js';

interface BenchFiltersProps {
  readonly stage: Stage | null;
  readonly person: string | null;
  readonly people: readonly string[];
  readonly onStage: (stage: Stage | null) => void;
  readonly onPerson: (person: string | null) => void;
}

/** Only the engines that are at one stage, or that one person has touched last. */
export function BenchFilters({ stage, person, people, onStage, onPerson }: BenchFiltersProps) {
  const names = person !== null && !people.includes(person) ? [person, ...people] : people;
  return (
    <>
      <Choice
        label="Next stage"
        value={stage ?? 'any'}
        options={[
          { value: 'any', label: 'any stage' },
          ...STAGES.map((value) => ({ value: value as string, label: stageName(value) })),
        ]}
        onChange={(value) => onStage(value === 'any' ? null : (value as Stage))}
      />
      <Choice
        label="Last edited by"
        value={person ?? ''}
        options={[{ value: '', label: 'anybody' }, ...names.map((name) => ({ value: name, label: name }))]}
        onChange={(name) => onPerson(name === '' ? null : name)}
      />
    </>
  );
}
