import { useState } from 'react';
import { refusalInWords } from '../wire/ask.js';

/** Something that is asked of the server by a press: whether it is under way, and why it did not work. */
export interface Acting {
  readonly isBusy: boolean;
  readonly fault: string | null;
  /** Does it. @returns true if it worked */
  readonly act: (work: () => Promise<unknown>) => Promise<boolean>;
}

export function useActing(): Acting {
  const [isBusy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    setBusy(true);
    setFault(null);
    try {
      await work();
      return true;
    } catch (error) {
      setFault(refusalInWords(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { isBusy, fault, act };
}
