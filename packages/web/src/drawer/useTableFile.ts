import { useState } from 'react';
import { readSpreadsheet } from './spreadsheet.js';

/** The cells of a file that was chosen. */
export interface TableFile {
  readonly name: string;
  readonly cells: readonly (readonly string[])[];
}

export interface ChosenTable {
  /** Null while none is chosen, or where it could not be read. */
  readonly table: TableFile | null;
  /** Why a file cannot be read; null where it can. */
  readonly fault: string | null;
  readonly choose: (file: File) => void;
  readonly drop: () => void;
}

/** A CSV or XLSX file on its way in: chosen, read into cells, and let go of again. */
export function useTableFile(): ChosenTable {
  const [table, setTable] = useState<TableFile | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  return {
    table,
    fault,
    choose: (file) => {
      setFault(null);
      setTable(null);
      readSpreadsheet(file)
        .then((cells) => setTable({ name: file.name, cells }))
        .catch((error: Error) =>
          setFault(`${file.name} cannot be read: ${error.message}. A CSV or XLSX file is wanted.`),
        );
    },
    drop: () => setTable(null),
  };
}
