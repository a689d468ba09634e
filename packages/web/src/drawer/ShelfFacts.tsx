import type { DrawerHalf } from '@fettle/core';
import { plainNumber } from '@fettle/core';
import { Field } from '../ui/Field.js';
import { useKeptText } from '../ui/useKeptText.js';

/** What the workshop knows of anything on its shelf. */
type OnShelf = Pick<DrawerHalf, 'bin' | 'least' | 'price' | 'supplier' | 'findings'>;

interface TextFieldProps {
  readonly line: string;
  readonly part: string;
  readonly field: string;
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly className?: string;
  readonly check?: (text: string) => string | null;
  readonly onCommit: (text: string) => Promise<boolean>;
}

/** A text of something on the shelf, saved when it is left. */
export function TextField(props: TextFieldProps) {
  const { line, part, field, label, value, most, className = '', check, onCommit } = props;
  const { text, setText, settled, isLeftOver } = useKeptText({ of: line, part, field }, value);
  const fault = check?.(text.trim()) ?? null;
  return (
    <Field
      label={label}
      className={className}
      value={text}
      maxLength={most}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={fault}
      onBlur={() => {
        if (fault !== null) return;
        if (text.trim() === value) settled(value);
        else void onCommit(text.trim()).then((worked) => worked && settled(text.trim(), text));
      }}
    />
  );
}

function wholeFault(text: string): string | null {
  return text === '' || /^\d{1,4}$/u.test(text) ? null : 'Enter a whole number.';
}

function priceFault(text: string): string | null {
  return text === '' || !Number.isNaN(plainNumber(text)) ? null : 'Enter a number, or leave blank.';
}

interface ShelfFactsProps {
  readonly id: string;
  /** Under what its texts are kept until they are saved. */
  readonly part: 'half' | 'piece';
  readonly item: OnShelf;
  readonly findingsLabel: string;
  readonly change: (part: Partial<OnShelf>) => Promise<boolean>;
}

/** Where something on the shelf lies, how few of it there may be, what it costs, who sells it, and what was found on receipt. */
export function ShelfFacts({ id, part, item, findingsLabel, change }: ShelfFactsProps) {
  const of = { line: id, part };
  return (
    <>
      <TextField {...of} field="bin" label="Bin" value={item.bin} most={40} onCommit={(bin) => change({ bin })} />
      <TextField
        {...of}
        field="minimum"
        label="Minimum free"
        value={item.least === 0 ? '' : String(item.least)}
        most={4}
        check={wholeFault}
        onCommit={(text) => change({ least: text === '' ? 0 : Number(text) })}
      />
      <TextField
        {...of}
        field="price"
        label="Price of one"
        value={item.price === null ? '' : String(item.price)}
        most={12}
        check={priceFault}
        onCommit={(text) => change({ price: text === '' ? null : plainNumber(text) })}
      />
      <TextField
        {...of}
        className="whole"
        field="supplier"
        label="Supplier, how to order it"
        value={item.supplier}
        most={120}
        onCommit={(supplier) => change({ supplier })}
      />
      <TextField
        {...of}
        className="whole"
        field="problem"
        label={findingsLabel}
        value={item.findings}
        most={300}
        onCommit={(findings) => change({ findings })}
      />
    </>
  );
}
