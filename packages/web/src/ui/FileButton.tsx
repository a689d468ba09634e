import type { ReactNode } from 'react';
import { useRef } from 'react';
import { Button } from './Button.js';

interface FileButtonProps {
  /** What the file is, for screen readers and tests. */
  readonly label: string;
  readonly accept: string;
  readonly onChoose: (file: File) => void;
  readonly children: ReactNode;
}

/** A button that asks for a file. The same file can be chosen again, after it was put right. */
export function FileButton({ label, accept, onChoose, children }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) onChoose(chosen);
        }}
      />
      <Button onPress={() => input.current?.click()}>{children}</Button>
    </>
  );
}
