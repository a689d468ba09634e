import {
  CLEARANCE_DECIMALS,
  clearanceLimitsOf,
  codedCell,
  codesOfFamily,
  comparedTables,
  derivedUndersize,
  type Family,
  formatExactLength,
  formatLength,
  generatedTable,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  PAINTS,
  type Paint,
  parseLength,
  type SelectionCodes,
  type TableFinding,
  tableFindings,
  typeFamilySchema,
  type Unit,
} from '@fettle/core';
import { CircleCheck, Download, Plus, Trash2, Upload, Wand2 } from 'lucide-react';
import Papa from 'papaparse';
import { useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { LimitFields } from '../data/LimitFields.js';
import { textOfLimit } from '../data/limitText.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field, fieldBox } from '../look/Field.js';
import { GradeName, PaintDab } from '../look/GradeSwatch.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { TypingGrid } from '../look/TypingGrid.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { IntervalBar } from '../shaft/IntervalBar.js';
import { readCell, textOfCell } from './cellText.js';
import { useOpenType } from './TypePage.js';
import { squareCells, withBlock } from './tableBlock.js';
import {
  type BandText,
  EMPTY_BAND,
  type FamilyText,
  isBlank,
  type TypeFaults,
  type UndersizeText,
} from './typeText.js';

const Lists = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  align-items: stretch;
  > section { flex: 1 1 18rem; min-width: 0; overflow-x: auto; padding: 0.75rem; }
  > section:last-child { flex-grow: 1.6; }
`;

const Scroll = styled.div`
  overflow-x: auto;
  margin: 0.5rem 0;
`;

const PaintChoice = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  select { ${fieldBox} width: auto; padding: 0 0.3rem; }
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

const UndersizeBox = styled.div`
  border-top: var(--rule) solid var(--line);
  padding-top: 0.5rem;
  margin-top: 0.5rem;
`;

interface BandGridProps {
  readonly title: string;
  readonly what: string;
  readonly place: string;
  readonly bands: readonly BandText[];
  readonly faults: TypeFaults;
  readonly unit: Unit;
  readonly hasPaint?: boolean;
  readonly onChange: (bands: readonly BandText[]) => void;
  readonly onRemove?: (at: number) => void;
}

const BAND_KEYS = ['mark', 'low', 'high'] as const;

/** Marks or grades with their bands: always one empty line more than is typed. */
function BandGrid({ title, what, place, bands, faults, unit, hasPaint = false, onChange, onRemove }: BandGridProps) {
  const shown = bands.length === 0 || !isBlank(bands.at(-1)!) ? [...bands, EMPTY_BAND] : bands;
  const set = (row: number, part: Partial<BandText>) =>
    onChange(shown.map((band, at) => (at === row ? { ...band, ...part } : band)));
  const remove = onRemove ?? ((at: number) => onChange(bands.filter((_, other) => other !== at)));
  return (
    <div>
      <strong>{title}</strong>
      <TypingGrid
        name={title}
        columns={[
          { key: 'mark', label: what, width: '4.5rem' },
          { key: 'low', label: `From, ${unit}`, width: '6.2rem', isFigure: true },
          { key: 'high', label: `To, ${unit}`, width: '6.2rem', isFigure: true },
        ]}
        rowCount={shown.length}
        label={(row, column) => `${title}, line ${row + 1}, ${[what.toLowerCase(), 'from', 'to'][column]}`}
        value={(row, column) => shown[row]![BAND_KEYS[column]!]}
        fault={(row, column) =>
          isBlank(shown[row]!) ? null : (faults[`${place}.${row}.${BAND_KEYS[column]}`] ?? null)
        }
        onType={(row, column, text) => set(row, { [BAND_KEYS[column]!]: text })}
        onPaste={(row, column, block) => {
          const next = [...shown];
          block.forEach((line, down) => {
            const old = next[row + down] ?? EMPTY_BAND;
            const typed = Object.fromEntries(
              line.flatMap((text, across) => {
                const key = BAND_KEYS[column + across];
                return key ? [[key, text]] : [];
              }),
            );
            next[row + down] = { ...old, ...typed };
          });
          onChange(next);
        }}
        rowEnd={(row) => (
          <span style={{ display: 'inline-flex', alignItems: 'center' }}>
            {hasPaint && !isBlank(shown[row]!) && (
              <PaintChoice>
                <select
                  aria-label={`${title}, line ${row + 1}, paint`}
                  value={shown[row]!.paint}
                  onChange={(event) => set(row, { paint: event.target.value as Paint | '' })}
                >
                  <option value="">no paint</option>
                  {PAINTS.map((paint) => (
                    <option key={paint} value={paint}>
                      {paint}
                    </option>
                  ))}
                </select>
                {shown[row]!.paint !== '' && <PaintDab paint={shown[row]!.paint as Paint} size={22} />}
              </PaintChoice>
            )}
            {!isBlank(shown[row]!) && (
              <Button $kind="quiet" aria-label={`Remove line ${row + 1} of ${title}`} onPress={() => remove(row)}>
                <Trash2 aria-hidden size={18} />
              </Button>
            )}
          </span>
        )}
      />
    </div>
  );
}

/** A finding in words: what is wrong, by how much, and what to look at. */
export function findingInWords(finding: TableFinding, unit: Unit): string {
  const exact = (value: Nanometres) => `${formatExactLength(value, unit, CLEARANCE_DECIMALS[unit])} ${unit}`;
  const parts = { housing: 'housing bands', journal: 'journal bands', grades: 'grades' } as const;
  switch (finding.kind) {
    case 'outside-limits': {
      const ends = [
        ...(finding.below > 0 ? [`${exact(finding.below)} too tight`] : []),
        ...(finding.above > 0 ? [`${exact(finding.above)} too loose`] : []),
      ];
      return `${finding.housing} × ${finding.journal} can come out ${ends.join(' and ')}.`;
    }
    case 'missing-cell':
      return `${finding.housing} × ${finding.journal} has no grade.`;
    case 'unknown-mark':
      return `The table has a ${finding.feature} mark ${finding.mark} that has no band.`;
    case 'unknown-grade':
      return `${finding.housing} × ${finding.journal} calls for ${finding.grade}, which is no grade.`;
    case 'unreachable-grade':
      return `No cell leads to ${finding.grade}.`;
    case 'gap':
      return `Between ${finding.between[0]} and ${finding.between[1]} (${parts[finding.feature]}) ${exact(finding.by)} are left out: a part could fall there.`;
    case 'overlap':
      return `${finding.between[0]} and ${finding.between[1]} (${parts[finding.feature]}) share ${exact(finding.by)}.`;
    case 'not-monotone': {
      const from = `${finding.from.housing} × ${finding.from.journal}`;
      const to = `${finding.to.housing} × ${finding.to.journal}`;
      return finding.along === 'housing'
        ? `From ${from} to ${to} the housing grows and the walls get thinner: one of them is misread.`
        : `From ${from} to ${to} the journal grows and the walls get thicker: one of them is misread.`;
    }
  }
}

interface FamilyProps {
  readonly family: Family;
  readonly text: FamilyText;
  readonly unit: Unit;
  readonly faults: TypeFaults;
  readonly codes: SelectionCodes | null;
  readonly set: (part: Partial<FamilyText>) => void;
}

function TablePanel({ family, text, unit, faults, codes, set }: FamilyProps) {
  const [compared, setCompared] = useState<'no' | 'plain' | 'mixed'>('no');
  const [left, setLeft] = useState<readonly string[]>([]);
  const file = useRef<HTMLInputElement>(null);
  const rows = text.housing.filter((band) => !isBlank(band)).map(({ mark }) => mark.trim());
  const columns = text.journal.filter((band) => !isBlank(band)).map(({ mark }) => mark.trim());
  const table = { rows, columns, cells: text.cells };
  const grades = text.grades.filter((band) => !isBlank(band)).map(({ mark }) => mark.trim());
  const paintOf = (grade: string): Paint | null => {
    const paint = text.grades.find(({ mark }) => mark.trim() === grade)?.paint;
    return paint ? paint : null;
  };
  const findings = useMemo(() => (codes ? tableFindings(codes) : []), [codes]);
  const made = useMemo(
    () => (codes && compared !== 'no' ? generatedTable(codes, { mixed: compared === 'mixed' }) : null),
    [codes, compared],
  );
  const differences = made && codes ? comparedTables(codes.table, made) : [];
  const fill = (block: readonly (readonly string[])[], at = { row: 0, column: 0 }) => {
    const filled = withBlock(table, block, at);
    setLeft(filled.left);
    set({ cells: filled.cells });
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
            <input
              ref={file}
              type="file"
              accept=".csv,text/csv"
              hidden
              aria-label="Table file"
              onChange={(event) => {
                const [chosen] = event.target.files ?? [];
                event.target.value = '';
                if (chosen)
                  void chosen
                    .text()
                    .then((content) => fill(Papa.parse<string[]>(content, { skipEmptyLines: true }).data));
              }}
            />
            <Button onPress={() => file.current?.click()}>
              <Upload aria-hidden size={18} />
              From CSV
            </Button>
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
              value={(row, column) => text.cells[row]?.[column] ?? ''}
              fault={(row, column) => faults[`${family}.cells.${row}.${column}`] ?? null}
              onType={(row, column, typed) => {
                const cells = squareCells(table);
                cells[row]![column] = typed;
                set({ cells });
              }}
              onPaste={(row, column, block) => fill(block, { row, column })}
              below={(row, column) => {
                const { cell } = readCell(text.cells[row]?.[column] ?? '', grades);
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
                      set({ cells: rows.map((row) => columns.map((column) => textOfCell(made[row]?.[column]))) })
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

function UndersizePanel({ family, text, unit, faults, set }: FamilyProps) {
  const { type } = useOpenType();
  const [amount, setAmount] = useState('');
  const standard = type?.limits[family === 'main' ? 'mainJournal' : 'pin'] ?? null;
  const parsed = parseLength(amount, { unit, signed: 'sign' });
  const change = (at: number, part: Partial<UndersizeText>) =>
    set({ undersizes: text.undersizes.map((one, other) => (other === at ? { ...one, ...part } : one)) });
  const add = () => {
    if (!parsed.ok || !type) return;
    const size = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
    const derived = standard && derivedUndersize(amount.trim(), parsed.nm, standard, type[family].grades);
    set({
      undersizes: [
        ...text.undersizes,
        {
          name: amount.trim(),
          amount: amount.trim(),
          journal: textOfLimit(derived?.journal ?? null, unit),
          grades: (derived?.grades ?? []).map(({ mark, low, high, paint }) => ({
            mark,
            low: size(low),
            high: size(high),
            paint: paint ?? '',
          })),
        },
      ],
    });
    setAmount('');
  };
  return (
    <Panel>
      <PanelTitle>Undersizes</PanelTitle>
      <Quiet>
        Shells for a journal ground smaller. What stands here first is arithmetic (journal less the amount, walls
        thicker by half of it): correct it from the book before you save.
      </Quiet>
      {text.undersizes.map((one, at) => {
        const place = `${family}.undersizes.${at}`;
        const limitFaults: { low?: string; high?: string; source?: string } = {};
        for (const side of ['low', 'high', 'source'] as const) {
          const message = faults[`${place}.journal.${side}`];
          if (message !== undefined) limitFaults[side] = message;
        }
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a box is its place in the list
          <UndersizeBox key={at}>
            <Row style={{ alignItems: 'end' }}>
              <Field
                label="Undersize, as it is called"
                value={one.name}
                maxLength={20}
                onChange={(name) => change(at, { name })}
                fault={faults[`${place}.name`] ?? null}
              />
              <Field
                label={`Smaller by, ${unit}`}
                figure
                value={one.amount}
                onChange={(value) => change(at, { amount: value })}
                fault={faults[`${place}.amount`] ?? null}
              />
              <Button
                $kind="quiet"
                aria-label={`Remove undersize ${one.name}`}
                onPress={() => set({ undersizes: text.undersizes.filter((_, other) => other !== at) })}
              >
                <Trash2 aria-hidden size={18} />
              </Button>
            </Row>
            <LimitFields
              name={`${family === 'main' ? 'Journal' : 'Pin'} ground to ${one.name} under`}
              unit={unit}
              text={one.journal}
              faults={limitFaults}
              onChange={(journal) => change(at, { journal })}
            />
            <BandGrid
              title={`Grades of ${one.name} under`}
              what="Grade"
              place={`${place}.grades`}
              bands={one.grades}
              faults={faults}
              unit={unit}
              hasPaint
              onChange={(grades) => change(at, { grades })}
            />
          </UndersizeBox>
        );
      })}
      <Row style={{ alignItems: 'end', marginTop: '0.5rem' }}>
        <Field
          label={`Another undersize, ${unit} on the diameter`}
          figure
          value={amount}
          onChange={setAmount}
          fault={amount.trim() === '' || parsed.ok ? null : parsed.message}
        />
        <Button isDisabled={!parsed.ok || parsed.nm <= 0} onPress={add}>
          <Plus aria-hidden size={18} />
          Add it
        </Button>
      </Row>
    </Panel>
  );
}

/** Marks, grades, the selection table and undersizes of the mains or of the rods, checked as they are typed. */
export function CodesEditor({ family }: { readonly family: Family }) {
  const { text, change, faults, type } = useOpenType();
  const { unit } = text;
  const own = text[family];
  const set = (part: Partial<FamilyText>) => change((old) => ({ ...old, [family]: { ...old[family], ...part } }));
  const codes = useMemo(() => {
    if (!type) return null;
    const read = typeFamilySchema.safeParse(type[family]);
    return read.success ? codesOfFamily(read.data, unit, clearanceLimitsOf(type.limits, family)) : null;
  }, [type, family, unit]);
  // Cells belong to the lines of the marks: taking a line out takes its cells along.
  const withoutLine = (list: 'housing' | 'journal') => (at: number) => {
    const cells = squareCells({
      rows: own.housing.map(({ mark }) => mark),
      columns: own.journal.map(({ mark }) => mark),
      cells: own.cells,
    });
    set({
      [list]: own[list].filter((_, other) => other !== at),
      cells:
        list === 'housing'
          ? cells.filter((_, other) => other !== at)
          : cells.map((line) => line.filter((_, other) => other !== at)),
    });
  };
  const bands = (list: 'housing' | 'journal' | 'grades', title: string, what: string) => (
    <Panel>
      <BandGrid
        title={title}
        what={what}
        place={`${family}.${list}`}
        bands={own[list]}
        faults={faults}
        unit={unit}
        hasPaint={list === 'grades'}
        onChange={(next) => set({ [list]: next })}
        {...(list === 'grades' ? {} : { onRemove: withoutLine(list) })}
      />
    </Panel>
  );
  const limits = codes?.limits;
  const text3 = (value: number) => formatLength(value as Nanometres, unit, CLEARANCE_DECIMALS[unit]);
  const props = { family, text: own, unit, faults, codes, set };
  return (
    <>
      <Panel>
        <Row style={{ alignItems: 'end' }}>
          <Field
            label="Series of the shells, as the maker calls it"
            value={own.series}
            maxLength={60}
            onChange={(series) => set({ series })}
          />
          <Field
            label="Source of bands and table: book and page"
            value={own.tableSource}
            maxLength={200}
            onChange={(tableSource) => set({ tableSource })}
          />
          <Quiet>
            Oil clearance:{' '}
            {limits
              ? `${text3(limits.low)} to ${text3(limits.high)} ${unit}, from the sheet`
              : 'no limits on the sheet yet'}
          </Quiet>
        </Row>
      </Panel>
      <Lists>
        {bands('housing', family === 'main' ? 'Main bores' : 'Big ends', 'Mark')}
        {bands('journal', family === 'main' ? 'Main journals' : 'Crankpins', 'Mark')}
        {bands('grades', 'Shell grades, walls', 'Grade')}
      </Lists>
      <TablePanel {...props} />
      <UndersizePanel {...props} />
    </>
  );
}
