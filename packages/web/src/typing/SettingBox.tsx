import type { Nanometres, SettingField, Unit } from '@fettle/core';
import { Choice } from '../ui/Choice.js';
import type { KeptPlace } from '../ui/useKeptText.js';
import { CelsiusField } from './CelsiusField.js';
import { LengthField } from './LengthField.js';
import { NumberField } from './NumberField.js';

const YES_NO = [
  { value: 'yes', label: 'Allowed' },
  { value: 'no', label: 'Not allowed' },
] as const;

/** A share as per cent, to a tenth. */
const percentOf = (share: number) => Math.round(share * 1000) / 10;

interface SettingBoxProps {
  readonly kept: KeptPlace;
  /** How its row says that it is set; without one nothing is shown. */
  readonly field: SettingField | undefined;
  readonly unit: Unit;
  readonly value: unknown;
  /** What decides which values there are, where that depends on the engine. */
  readonly engine?: unknown;
  readonly onCommit: (value: never) => void;
}

function atLeast0(value: number): string | null {
  return value >= 0 ? null : 'Enter 0 or more.';
}

function above0(value: number): string | null {
  return value > 0 ? null : 'Enter more than 0.';
}

/** The box of one setting, by the kind of its field. */
export function SettingBox({ kept, field, unit, value, engine, onCommit }: SettingBoxProps) {
  const set = onCommit as (value: unknown) => void;
  if (field === undefined) return null;
  switch (field.kind) {
    case 'yes-no':
      return (
        <Choice
          label={field.label}
          value={value === true ? 'yes' : 'no'}
          options={YES_NO}
          onChange={(to) => set(to === 'yes')}
        />
      );
    case 'one-of': {
      const { named, options } = field;
      return (
        <Choice
          label={field.label}
          value={named ? named.by(value as never) : String(value)}
          options={typeof options === 'function' ? options(engine as never) : options}
          onChange={(name) => set(named ? named.value(name) : name)}
        />
      );
    }
    case 'length':
      return (
        <LengthField
          kept={kept}
          label={`${field.label}, ${unit}`}
          unit={unit}
          value={(value === undefined ? (field.shown ?? null) : value) as Nanometres | null}
          optional={field.isOptional}
          check={field.isSize === true ? above0 : atLeast0}
          onCommit={(to) => (field.isOptional || to !== null) && set(to)}
        />
      );
    case 'number':
      return <NumberField kept={kept} label={field.label} value={Number(value)} most={field.most} onCommit={set} />;
    case 'percent':
      return (
        <NumberField
          kept={kept}
          label={field.label}
          value={percentOf((value as number | undefined) ?? field.shown ?? 0)}
          most={field.most}
          onCommit={(percent) => set(percent / 100)}
        />
      );
    case 'celsius':
      return <CelsiusField kept={kept} label={field.label} value={value as number | null} onCommit={set} />;
  }
}
