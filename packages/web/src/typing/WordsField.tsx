import { Field } from '../ui/Field.js';
import { useKeptText } from '../ui/useKeptText.js';

/** A word about something, saved when it is left. */
export function WordsField({
  job,
  part,
  field,
  label,
  value,
  most = 60,
  onCommit,
}: {
  job: string;
  part: string;
  field: string;
  label: string;
  value: string;
  most?: number;
  onCommit: (text: string) => void;
}) {
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part, field }, value);
  return (
    <Field
      label={label}
      value={text}
      maxLength={most}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => {
        settled(text.trim());
        if (text.trim() !== value) onCommit(text.trim());
      }}
    />
  );
}
