import { type JobDocument, positionSchema, THRUST_PLACE } from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { Field } from '../ui/Field.js';
import { useKeptText } from '../ui/useKeptText.js';

interface PlaceFieldProps {
  readonly id: string;
  readonly number: number;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
}

/** The name of a main that takes halves of its own; saved when it is left. */
export function PlaceField({ id, number, document, change }: PlaceFieldProps) {
  const key = String(number);
  const isThrust = document.layout.thrustMain === number;
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: id, part: `M${number}`, field: 'place' },
    document.places[key] ?? '',
  );
  const read = text.trim() === '' ? null : positionSchema.safeParse(text);
  const commit = () => {
    if (read && !read.success) return;
    settled(read?.data ?? '');
    if ((read?.data ?? '') === (document.places[key] ?? '')) return;
    change((old) => {
      const { [key]: _, ...others } = old.places;
      return { ...old, places: read ? { ...others, [key]: read.data } : others };
    });
  };
  return (
    <Field
      aria-label={`Place of M${number}`}
      label=""
      value={text}
      maxLength={20}
      placeholder={isThrust ? THRUST_PLACE : ''}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={commit}
      onKeyDown={(event) => event.key === 'Enter' && commit()}
      fault={read && !read.success ? read.error.issues[0]!.message : null}
    />
  );
}
