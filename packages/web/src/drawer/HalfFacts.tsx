import type { DrawerHalf, Unit } from '@fettle/core';
import { Field } from '../look/Field.js';
import { useKeptText } from '../look/useKeptText.js';
import { LengthField } from '../measure/LengthField.js';
import { Pairs } from './Pairs.js';

/** A text of a half, saved when it is left. */
function TextField({
  line,
  field,
  label,
  value,
  most,
  className = '',
  check,
  onCommit,
}: {
  line: string;
  field: keyof DrawerHalf;
  label: string;
  value: string;
  most: number;
  className?: string;
  check?: (text: string) => string | null;
  onCommit: (text: string) => Promise<boolean>;
}) {
  const { text, setText, settled } = useKeptText({ of: line, part: 'half', field }, value);
  const fault = check?.(text.trim()) ?? null;
  return (
    <Field
      label={label}
      className={className}
      value={text}
      maxLength={most}
      onChange={setText}
      fault={fault}
      onBlur={() => {
        if (text.trim() === value || fault !== null) return;
        void onCommit(text.trim()).then((worked) => worked && settled(text.trim()));
      }}
    />
  );
}

function wholeFault(text: string): string | null {
  return text === '' || /^\d{1,4}$/u.test(text) ? null : 'A whole number.';
}

function priceFault(text: string): string | null {
  return text === '' || /^\d+([.,]\d+)?$/u.test(text) ? null : 'A number, or empty.';
}

interface HalfFactsProps {
  readonly id: string;
  readonly half: DrawerHalf;
  readonly label: string;
  readonly unit: Unit;
  readonly change: (part: Partial<DrawerHalf>) => Promise<boolean>;
}

/** What is known of a kind of half beside how many there are. */
export function HalfFacts({ id, half, label, unit, change }: HalfFactsProps) {
  return (
    <Pairs>
      <TextField line={id} field="bin" label="Bin" value={half.bin} most={40} onCommit={(bin) => change({ bin })} />
      <TextField
        line={id}
        field="least"
        label="Least free"
        value={half.least === 0 ? '' : String(half.least)}
        most={4}
        check={wholeFault}
        onCommit={(text) => change({ least: text === '' ? 0 : Number(text) })}
      />
      <TextField
        line={id}
        field="price"
        label="Price of one half"
        value={half.price === null ? '' : String(half.price)}
        most={12}
        check={priceFault}
        onCommit={(text) => change({ price: text === '' ? null : Number(text.replace(',', '.')) })}
      />
      <TextField
        line={id}
        field="undersize"
        label="Undersize, if any"
        value={half.undersize ?? ''}
        most={20}
        onCommit={(text) => change({ undersize: text === '' ? undefined : text })}
      />
      <TextField
        line={id}
        className="whole"
        field="supplier"
        label="Supplier, how to order it"
        value={half.supplier}
        most={120}
        onCommit={(supplier) => change({ supplier })}
      />
      <TextField
        line={id}
        className="whole"
        field="findings"
        label="Found on receipt, as an oil hole half covered"
        value={half.findings}
        most={300}
        onCommit={(findings) => change({ findings })}
      />
      {half.number === undefined && (
        <div className="whole">
          <LengthField
            key={`${id} wall`}
            kept={{ of: id, part: 'half', field: 'wall' }}
            label={`Wall of ${label}, ${unit}`}
            unit={unit}
            value={half.wall}
            optional={false}
            check={(value) => (value > 0 ? null : 'A wall is above zero.')}
            onCommit={(value) => value !== null && void change({ wall: value, band: undefined })}
          />
        </div>
      )}
    </Pairs>
  );
}
