import { parseLength } from '@fettle/core';
import type { KeyboardEvent } from 'react';
import { Field } from '../ui/Field.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { LineField as Kind, MainLineWork } from './useMainLine.js';

const LABELS: Readonly<Record<Kind, string>> = {
  height: 'height',
  side: 'side',
  place: 'distance from the first main',
};

interface LineFieldProps {
  readonly job: string;
  readonly work: MainLineWork;
  readonly kind: Kind;
  readonly main: string;
}

/** Goes to the box of the next main in the same row. */
function goOn(box: HTMLElement): void {
  const cell = box.closest('td');
  const next = cell?.nextElementSibling?.querySelector<HTMLInputElement>('input');
  const below = cell?.closest('tr')?.nextElementSibling?.querySelector<HTMLInputElement>('input');
  (next ?? below)?.focus();
}

/** What was read off the bar at a main; Enter keeps it and goes to the next. */
export function LineField({ job, work, kind, main }: LineFieldProps) {
  const { document, put } = work;
  const stored = document.mainLine[kind][main]?.text ?? '';
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: `line ${main}`, field: kind }, stored);
  const parsed = parseLength(text, { unit: document.unit, signed: 'sign' });
  const keep = () => {
    if (text.trim() !== '' && !parsed.ok) return;
    if (text.trim() !== stored) put(kind, main, text);
    settled(text.trim());
  };
  return (
    <Field
      label=""
      aria-label={`${main} ${LABELS[kind]}, ${document.unit}`}
      figure
      inputMode="text"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={text.trim() !== '' && !parsed.ok ? parsed.message : null}
      onBlur={keep}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        // What is left is kept.
        goOn(event.target as HTMLElement);
      }}
    />
  );
}
