import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** True if the table is being printed: then all of it is drawn. */
export function usePrinting(): boolean {
  const [isPrinting, setPrinting] = useState(false);
  useEffect(() => {
    // It has to be there before the browser looks.
    const before = () => flushSync(() => setPrinting(true));
    const after = () => setPrinting(false);
    addEventListener('beforeprint', before);
    addEventListener('afterprint', after);
    return () => {
      removeEventListener('beforeprint', before);
      removeEventListener('afterprint', after);
    };
  }, []);
  return isPrinting;
}
