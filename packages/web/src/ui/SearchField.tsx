import { Search } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { fieldBox } from './Field.js';

const Box = styled.label`
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  flex: 1 1 12rem;
  input { ${fieldBox} }
  svg { flex: none; color: var(--ink-soft); }
`;

interface SearchFieldProps {
  /** For screen readers. */
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
}

/** Words to look for in a list. */
export function SearchField({ label, placeholder, value, onChange }: SearchFieldProps) {
  const box = useRef<HTMLInputElement>(null);
  useShortcut('/', label, () => box.current?.focus());
  return (
    <Box>
      <Search aria-hidden size={20} />
      <span className="visually-hidden">{label}</span>
      <input
        ref={box}
        type="search"
        value={value}
        placeholder={placeholder}
        onChange={(event) => onChange(event.target.value)}
      />
    </Box>
  );
}
