import { Field } from '../ui/Field.js';

interface PasswordFieldProps {
  readonly label: string;
  /** True if it is a new one: browsers then offer to make and save it. */
  readonly isNew?: boolean;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly autoFocus?: boolean;
  readonly fault?: string | null;
  readonly hint?: string;
}

/** A password as it is typed. */
export function PasswordField({ isNew = false, ...props }: PasswordFieldProps) {
  return (
    <Field {...props} type="password" autoComplete={isNew ? 'new-password' : 'current-password'} maxLength={200} />
  );
}
