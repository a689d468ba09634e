import { useEffect, useRef, useState } from 'react';
import { readSpreadsheet } from './spreadsheet.js';

/** The cells of a file that was chosen. */
export interface TableFile {
  readonly name: string;
  readonly cells: readonly (readonly string[])[];
}

/** A file that is being read. */
export interface FileUnderWay {
  readonly name: string;
  /** How far it is, of 1. */
  readonly share: number;
  /** Gives it up. */
  readonly cancel: () => void;
}

export interface ChosenTable {
  /** Null while none is chosen, or where it could not be read. */
  readonly table: TableFile | null;
  readonly underWay: FileUnderWay | null;
  /** Why a file cannot be read; null where it can. */
  readonly fault: string | null;
  readonly choose: (file: File) => void;
  readonly drop: () => void;
}

/** A CSV or XLSX file on its way in: chosen, read into cells, and let go of again. */
export function useTableFile(): ChosenTable {
  const [table, setTable] = useState<TableFile | null>(null);
  const [underWay, setUnderWay] = useState<FileUnderWay | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const reading = useRef<AbortController | null>(null);
  useEffect(() => () => reading.current?.abort(), []);
  return {
    table,
    underWay,
    fault,
    choose: (file) => {
      // Of two that are chosen one after the other, the second counts.
      reading.current?.abort();
      const own = new AbortController();
      reading.current = own;
      const { name } = file;
      const cancel = () => {
        own.abort();
        setUnderWay(null);
      };
      setFault(null);
      setTable(null);
      setUnderWay({ name, share: 0, cancel });
      const onProgress = (share: number) => {
        if (!own.signal.aborted) setUnderWay({ name, share, cancel });
      };
      readSpreadsheet(file, { onProgress, cancelled: own.signal })
        .then((cells) => !own.signal.aborted && setTable({ name, cells }))
        .catch((error: Error) => {
          if (!own.signal.aborted) setFault(`Cannot read “${name}”: ${error.message}. Choose a CSV or XLSX file.`);
        })
        .finally(() => !own.signal.aborted && setUnderWay(null));
    },
    drop: () => setTable(null),
  };
}
