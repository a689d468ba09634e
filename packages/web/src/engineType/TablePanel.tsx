import { codedCell, comparedTables, generatedTable, type Paint, tableFindings } from '@fettle/core';
import { CircleCheck, Download, Upload, Wand2 } from 'lucide-react';
import Papa from 'papaparse';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { FileButton } from '../look/FileButton.js';
import { GradeName } from '../look/GradeSwatch.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { TypingGrid } from '../look/TypingGrid.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { IntervalBar } from '../shaft/IntervalBar.js';
import { readCell, textOfCell } from './cellText.js';
import type { FamilyProps } from './familyProps.js';
import { findingInWords } from './findingInWords.js';
import { shownTable, squareCells, withBlock, withShown } from './tableBlock.js';
import { type BandText, isBlank } from './typeText.js';

const Scroll = styled.div`
  overflow-x: auto;
  margin: 0.5rem 0;
`;

const Under = styled.div`
  display: flex;
  flex-direction: column;
  gap: 0.1rem;
  min-height: 2.4rem;
  padding-top: 0.1rem;
  font-size: var(--size-small);
  .other { color: var(--accent); font-weight: 600; }
`;

const Findings = styled.ul`
  margin-top: 0.5rem;
  li { padding: 0.3rem 0; border-top: var(--rule) solid var(--line); }
`;

/** The selection table, typed or pasted as it stands in the book, each cell with the clearance that its bands imply. */
export function TablePanel({ family, text, unit, faults, codes, thinner, set }: FamilyProps) {
  const [compared, setCompared] = useState<'no' | 'plain' | 'mixed'>('no');
  const [left, setLeft] = useState<readonly string[]>([]);
  const marksOf = (bands: readonly BandText[]) => bands.map(({ mark }) => mark);
  const table = shownTable(marksOf(text.housing), marksOf(text.journal), text.cells);
  const { rows, columns, rowAt, columnAt } = table;
  const setShown = (shown: readonly (readonly string[])[]) => set({ cells: withShown(text.cells, table, shown) });
  const grades = text.grades.filter((band) => !isBlank(band)).map(({ mark }) => mark.trim());
  const paintOf = (grade: string): Paint | null => {
    const paint = text.grades.find(({ mark }) => mark.trim() === grade)?.paint;
    return paint ? paint : null;
  };
  const findings = useMemo(() => (codes ? tableFindings(codes) : []), [codes]);
  const made = useMemo(
    () => (codes && compared !== 'no' ? generatedTable(codes, { mixed: compared === 'mixed', thinner }) : null),
    [codes, compared, thinner],
  );
  const differences = made && codes ? comparedTables(codes.table, made) : [];
  const fill = (block: readonly (readonly string[])[], at = { row: 0, column: 0 }) => {
    const filled = withBlock(table, block, at);
    setLeft(filled.left);
    setShown(filled.cells);
  };
  const csv = () =>
    Papa.unparse([['', ...columns], ...squareCells(table).map((line, at) => [rows[at]!, ...line])], {
      newline: '\r\n',
      escapeFormulae: true,
    });
  const isEmpty = rows.length === 0 || columns.length === 0;
  return (
    <Panel>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Selection table</PanelTitle>
        {!isEmpty && (
          <Row>
            <FileButton
              label="Table file"
              accept=".csv,text/csv"
              onChoose={(chosen) =>
                void chosen.text().then((content) => fill(Papa.parse<string[]>(content, { skipEmptyLines: true }).data))
              }
            >
              <Upload aria-hidden size={18} />
              From CSV
            </FileButton>
            <Button onPress={() => saveAs(`${family} table.csv`, CSV_TYPE, `${csv()}\r\n`)}>
              <Download aria-hidden size={18} />
              Save as CSV
            </Button>
          </Row>
        )}
      </Row>
      {isEmpty ? (
        <Quiet>
          The table opens here once there are housing marks and {family === 'main' ? 'journal' : 'pin'} marks.
        </Quiet>
      ) : (
        <>
          <Quiet>
            Type a grade, or upper/lower; its first letters are enough. Enter goes on, arrows move, a block from a
            spreadsheet can be pasted with or without its marks. Under each cell stands the clearance its bands imply.
          </Quiet>
          {left.length > 0 && (
            <Notice actions={<Button onPress={() => setLeft([])}>Seen</Button>}>
              What was pasted is larger than the table; no place for: {left.slice(0, 8).join(', ')}
              {left.length > 8 && ` and ${left.length - 8} more`}.
            </Notice>
          )}
          <Scroll>
            <TypingGrid
              name="Selection table"
              corner={family === 'main' ? 'Bore ↓ journal →' : 'Rod ↓ pin →'}
              columns={columns.map((mark, at) => ({ key: `${at} ${mark}`, label: mark, width: '8.5rem' }))}
              rowCount={rows.length}
              rowHead={(row) => rows[row]}
              label={(row, column) => `${rows[row]} × ${columns[column]}`}
              value={(row, column) => table.cells[row]![column]!}
              fault={(row, column) => faults[`${family}.cells.${rowAt[row]}.${columnAt[column]}`] ?? null}
              onType={(row, column, typed) => {
                const cells = squareCells(table);
                cells[row]![column] = typed;
                setShown(cells);
              }}
              onPaste={(row, column, block) => fill(block, { row, column })}
              below={(row, column) => {
                const { cell } = readCell(table.cells[row]![column]!, grades);
                const coded = codes && codedCell(codes, rows[row]!, columns[column]!);
                const other = made?.[rows[row]!]?.[columns[column]!];
                const isOther = differences.some(
                  ({ housing, journal }) => housing === rows[row] && journal === columns[column],
                );
                return (
                  <Under>
                    {cell !== null && coded?.grades && (
                      <span>
                        {[...new Set([coded.grades.upper, coded.grades.lower])].map((grade, at) => (
                          <span key={grade}>
                            {at > 0 && ' / '}
                            <GradeName name={grade} paint={paintOf(grade)} size={14} />
                          </span>
                        ))}
                      </span>
                    )}
                    {coded?.interval && <IntervalBar interval={coded.interval} limits={codes!.limits} unit={unit} />}
                    {isOther && other !== undefined && <span className="other">better: {textOfCell(other)}</span>}
                  </Under>
                );
              }}
            />
          </Scroll>
          <Row style={{ alignItems: 'end' }}>
            <Choice
              label="Compare with the table that bands and walls call for"
              value={compared}
              options={[
                { value: 'no', label: 'No' },
                { value: 'plain', label: 'One grade for both halves' },
                { value: 'mixed', label: 'Halves may be mixed' },
              ]}
              onChange={setCompared}
            />
            {made && (
              <>
                <p role="status">
                  {differences.length === 0
                    ? 'Every cell is the same.'
                    : `${differences.length} of ${rows.length * columns.length} cells differ.`}
                </p>
                {differences.length > 0 && (
                  <Button
                    onPress={() =>
                      setShown(rows.map((row) => columns.map((column) => textOfCell(made[row]?.[column]))))
                    }
                  >
                    <Wand2 aria-hidden size={18} />
                    Take this table
                  </Button>
                )}
              </>
            )}
            {compared !== 'no' && !made && <p>That needs the clearance limits on the sheet, and the grades.</p>}
          </Row>
          {codes && (
            <section aria-label="Findings">
              {findings.length === 0 ? (
                <p style={{ display: 'flex', gap: '0.4rem', alignItems: 'center', marginTop: '0.6rem' }}>
                  <CircleCheck aria-hidden size={20} color="var(--inside)" /> The table holds together: every cell is
                  filled, inside the limits, and steps the right way.
                </p>
              ) : (
                <>
                  <p style={{ marginTop: '0.6rem', fontWeight: 700 }}>
                    {findings.length === 1 ? 'One thing to look at' : `${findings.length} things to look at`}
                  </p>
                  <Findings>
                    {findings.slice(0, 30).map((finding) => (
                      <li key={JSON.stringify(finding)}>{findingInWords(finding, unit)}</li>
                    ))}
                    {findings.length > 30 && <li>and {findings.length - 30} more.</li>}
                  </Findings>
                </>
              )}
              {!codes.limits && <Quiet>Cells are not judged: the sheet has no limits for this oil clearance.</Quiet>}
            </section>
          )}
        </>
      )}
    </Panel>
  );
}
