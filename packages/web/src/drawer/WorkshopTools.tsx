import { drawerTable, type Unit } from '@fettle/core';
import { Download, TriangleAlert } from 'lucide-react';
import { UNIT_OPTIONS } from '../limits/options.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import type { Workshop } from './useWorkshop.js';

interface WorkshopToolsProps {
  readonly workshop: Workshop;
  readonly unit: Unit;
  readonly onUnit: (unit: Unit) => void;
  /** True if something stands beside the drawer: then there is less room. */
  readonly isBeside: boolean;
}

/** Looking for halves, what is to be ordered, and the drawer as a file. */
export function WorkshopTools({ workshop, unit, onUnit, isBeside }: WorkshopToolsProps) {
  const { sorted, short, words, setWords, isOnlyShort, setOnlyShort, orderTable } = workshop;
  return (
    <Row style={{ margin: '0.5rem 0', alignItems: 'end' }}>
      <SearchField label="Search stock" placeholder="grade, series, bin, engine" value={words} onChange={setWords} />
      {short.length > 0 && (
        <>
          <Button aria-pressed={isOnlyShort} onPress={() => setOnlyShort(!isOnlyShort)}>
            <TriangleAlert aria-hidden size={18} />
            {isOnlyShort ? 'Show all' : `${short.length} below ${short.length === 1 ? 'its' : 'their'} minimum`}
          </Button>
          <Button onPress={() => saveAs('to order.csv', CSV_TYPE, csvOf(orderTable()))}>
            <Download aria-hidden size={18} />
            Order
          </Button>
        </>
      )}
      {!isBeside && (
        <>
          <Button onPress={() => saveAs('drawer.csv', CSV_TYPE, csvOf(drawerTable(sorted, unit)))}>
            <Download aria-hidden size={18} />
            CSV
          </Button>
          <Button
            onPress={() =>
              void xlsxOf('Stock', drawerTable(sorted, unit)).then(({ type, content }) =>
                saveAs('drawer.xlsx', type, content),
              )
            }
          >
            <Download aria-hidden size={18} />
            XLSX
          </Button>
        </>
      )}
      <Choice label="Units" value={unit} options={UNIT_OPTIONS} onChange={onUnit} />
    </Row>
  );
}
