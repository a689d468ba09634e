import { limitName, PLACED_LIMITS, type PlacedLimit } from '@fettle/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Quiet, Row } from '../ui/Panel.js';

/** Names the limits of one main: `3 mainClearance`. */
export function placedKey(number: number | string, key: PlacedLimit): string {
  return `${number} ${key}`;
}

/** What a main is called in a list of limits, with what it is besides its number. */
export function mainName(number: number, mains: number, thrustMain: number | null): string {
  const also = [
    ...(number === thrustMain ? ['thrust'] : []),
    ...(number === 1 ? ['front'] : []),
    ...(number === mains && mains > 1 ? ['rear'] : []),
  ];
  return also.length === 0 ? `main ${number}` : `main ${number} (${also.join(', ')})`;
}

interface PlacedLimitsProps {
  readonly mains: number;
  readonly thrustMain: number | null;
  /** Which are there already. */
  readonly keys: readonly string[];
  readonly onAdd: (number: number, key: PlacedLimit) => void;
}

/** Adds limits that hold at one main only: the rear main, the thrust main, each main of a stepped shaft. */
export function PlacedLimits({ mains, thrustMain, keys, onAdd }: PlacedLimitsProps) {
  const [number, setNumber] = useState(String(mains));
  const [key, setKey] = useState<PlacedLimit>('mainClearance');
  const isThere = keys.includes(placedKey(number, key));
  return (
    <>
      <Row style={{ alignItems: 'end', marginTop: '0.75rem' }}>
        <Choice
          label="Only at"
          value={number}
          options={Array.from({ length: mains }, (_, at) => ({
            value: String(at + 1),
            label: mainName(at + 1, mains, thrustMain),
          }))}
          onChange={setNumber}
        />
        <Choice
          label="Limits of its"
          value={key}
          options={PLACED_LIMITS.map((value) => ({ value, label: limitName(value).toLowerCase() }))}
          onChange={setKey}
        />
        <Button isDisabled={isThere} onPress={() => onAdd(Number(number), key)}>
          <Plus aria-hidden size={18} />
          Add
        </Button>
      </Row>
      <Quiet>Limits the book gives for one main replace those above.</Quiet>
    </>
  );
}
