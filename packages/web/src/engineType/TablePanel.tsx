import { FAMILY_TABLE, FEATURE_TABLE, featureOf } from '@fettle/core';
import { Download, Upload, Wand2 } from 'lucide-react';
import styled from 'styled-components';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { cellsOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TypingGrid } from '../ui/TypingGrid.js';
import { CompareTable } from './CompareTable.js';
import { readCell } from './cellText.js';
import type { FamilyProps } from './familyProps.js';
import { TableCell } from './TableCell.js';
import { TableFindings } from './TableFindings.js';
import { useTable } from './useTable.js';

const Scroll = styled.div`
  overflow-x: auto;
  margin: 0.5rem 0;
`;

/** The selection table, typed or pasted as it stands in the book, each cell with the clearance that its bands imply. */
export function TablePanel(props: FamilyProps) {
  const { family, unit, faults, codes } = props;
  const table = useTable(props);
  const {
    rows,
    columns,
    rowAt,
    columnAt,
    cells,
    typeAt,
    grades,
    paintOf,
    findings,
    betterAt,
    fill,
    left,
    seen,
    csv,
    isEmpty,
  } = table;
  return (
    <Panel>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Selection table</PanelTitle>
        {!isEmpty && (
          <Row>
            {table.fillEmpty && (
              <Button onPress={table.fillEmpty}>
                <Wand2 aria-hidden size={18} />
                Fill from bands
              </Button>
            )}
            <FileButton
              label="Table file"
              accept=".csv,text/csv"
              onChoose={(chosen) => void chosen.text().then((content) => fill(cellsOf(content)))}
            >
              <Upload aria-hidden size={18} />
              From CSV
            </FileButton>
            <Button onPress={() => saveAs(`${family} table.csv`, CSV_TYPE, csv())}>
              <Download aria-hidden size={18} />
              Save as CSV
            </Button>
          </Row>
        )}
      </Row>
      {isEmpty ? (
        <Quiet>
          The table opens once there are housing marks and {FEATURE_TABLE[featureOf(family, 'journal')].word} marks.
        </Quiet>
      ) : (
        <>
          <Quiet>
            Type a grade, or upper/lower; the first letters will do. Enter: next. Arrows move. Paste a block from a
            spreadsheet, with or without its marks. Below each cell: the clearance from its bands.
          </Quiet>
          {left.length > 0 && (
            <Notice actions={<Button onPress={seen}>Checked</Button>}>
              What was pasted is larger than the table; no place for: {left.slice(0, 8).join(', ')}
              {left.length > 8 && ` and ${left.length - 8} more`}.
            </Notice>
          )}
          <Scroll>
            <TypingGrid
              name="Selection table"
              corner={`${FAMILY_TABLE[family].heads.housing} ↓ ${FEATURE_TABLE[featureOf(family, 'journal')].word} →`}
              columns={columns.map((mark, at) => ({ key: `${at} ${mark}`, label: mark, width: '8.5rem' }))}
              rowCount={rows.length}
              rowHead={(row) => rows[row]}
              label={(row, column) => `${rows[row]} × ${columns[column]}`}
              value={(row, column) => cells[row]![column]!}
              fault={(row, column) => faults[`${family}.cells.${rowAt[row]}.${columnAt[column]}`] ?? null}
              onType={(row, column, typed) => {
                typeAt(row, column, typed);
              }}
              onPaste={(row, column, block) => fill(block, { row, column })}
              below={(row, column) => (
                <TableCell
                  family={family}
                  codes={codes}
                  housing={rows[row]!}
                  journal={columns[column]!}
                  isRead={readCell(cells[row]![column]!, grades).cell !== null}
                  better={betterAt(rows[row]!, columns[column]!)}
                  paintOf={paintOf}
                  unit={unit}
                />
              )}
            />
          </Scroll>
          <CompareTable {...table} />
          {codes && <TableFindings codes={codes} findings={findings} unit={unit} />}
        </>
      )}
    </Panel>
  );
}
