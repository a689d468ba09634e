import {
  type DrawerLine,
  drawerHalfSchema,
  drawerTable,
  formatExactLength,
  freeHalves,
  halvesIn,
  INSTRUMENT_DECIMALS,
  type Unit,
} from '@fettle/core';
import { ChevronRight, Download, FileUp, History, Package, Plus, Trash2, TriangleAlert } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { useAppSelector } from '../app/store.js';
import { UNIT_OPTIONS } from '../bench/options.js';
import { CountField } from '../drawer/CountField.js';
import { FamilyForm } from '../drawer/FamilyForm.js';
import { HALF_OPTIONS } from '../drawer/halfOptions.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { SearchField } from '../look/SearchField.js';
import { NOBODY } from '../person/personSlice.js';
import { moveDrawer } from '../saving/api.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { DrawerHistory } from './DrawerHistory.js';
import { HalfPanel } from './HalfPanel.js';
import { ImportPanel } from './ImportPanel.js';
import { KitsPanel } from './KitsPanel.js';
import { csvOf, xlsxOf } from './spreadsheet.js';
import { type Drawer, useDrawer } from './useDrawer.js';

const Columns = styled.div<{ $isOpen: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${({ $isOpen }) => ($isOpen ? 'minmax(22rem, 27rem)' : '')};
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
`;

const Line = styled.tr`
  td { padding: 0.2rem 0.4rem; }
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 5rem; }
  td.half { white-space: nowrap; }
  td.who { font-size: var(--size-small); color: var(--ink-soft); }
  td.none { color: var(--close); font-weight: 700; }
  small { display: block; font-weight: 400; color: var(--ink-soft); }
  &[aria-current='true'] td { background: var(--accent-soft); }
`;

const Scroll = styled.div`
  overflow-x: auto;
`;

/** Everything about a half that a search may look for. */
function wordsOf({ half, reservations }: DrawerLine): string {
  const { family, series, grade, undersize, number, bin, supplier, findings } = half;
  const names = reservations.map(({ name }) => name);
  return [family, half.half, series, grade, undersize, number, bin, supplier, findings, ...names]
    .join(' ')
    .toLowerCase();
}

function isShort(line: DrawerLine): boolean {
  return freeHalves(line, null) < line.half.least;
}

function inOrder(lines: readonly DrawerLine[]): DrawerLine[] {
  return [...lines].sort(
    (a, b) =>
      a.half.series.localeCompare(b.half.series, 'en') ||
      a.half.family.localeCompare(b.half.family, 'en') ||
      (a.half.undersize ?? '').localeCompare(b.half.undersize ?? '', 'en') ||
      b.half.half.localeCompare(a.half.half, 'en') ||
      a.half.wall - b.half.wall ||
      (a.half.number ?? '').localeCompare(b.half.number ?? '', 'en'),
  );
}

type Side = { readonly kind: 'half'; readonly id: string } | { readonly kind: 'history' | 'kits' | 'import' } | null;

interface LinesTableProps {
  readonly lines: readonly DrawerLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly opened: string | null;
  readonly isNarrow: boolean;
  readonly onOpen: (id: string) => void;
}

function LinesTable({ lines, unit, by, act, opened, isNarrow, onOpen }: LinesTableProps) {
  return (
    <Scroll>
      <Table>
        <thead>
          <tr>
            <th>Grade</th>
            <th>Half</th>
            <th>Series</th>
            <th className="number">Wall, {unit}</th>
            <th>On hand</th>
            <th className="number">Free</th>
            <th className="number">Reserved</th>
            <th className="number">Used</th>
            <th>Bin</th>
            {!isNarrow && <th className="number">Price</th>}
            {!isNarrow && <th>Held by</th>}
            <th>
              <span className="visually-hidden">Open, or remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => {
            const { id, version, half, reservations } = line;
            const free = freeHalves(line, null);
            return (
              <Line key={id} aria-current={id === opened}>
                <td className="name">
                  {half.grade}
                  {half.number !== undefined && <small>no. {half.number}, own wall</small>}
                  {half.undersize !== undefined && <small>{half.undersize} under</small>}
                </td>
                <td className="name half">
                  {half.family} {half.half}
                </td>
                <td className="name">{half.series}</td>
                <td className="number">
                  {formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit])}
                  {half.band && <small>by grade</small>}
                </td>
                <td style={{ width: '5.5rem' }}>
                  <CountField
                    id={`drawer ${id}`}
                    label={`On hand of ${half.grade} ${half.half}`}
                    value={half.onHand}
                    most={99_999}
                    onCommit={(onHand) => {
                      const changes = [{ id, version, half: { ...half, onHand: onHand ?? 0 } }];
                      return act(() => moveDrawer({ by, kind: 'count', note: '', changes }));
                    }}
                  />
                </td>
                <td className={free === 0 ? 'number none' : 'number'}>
                  {free === 0 ? 'none' : free}
                  {isShort(line) && (
                    <small style={{ color: 'var(--close)', fontWeight: 700 }}>
                      <TriangleAlert aria-hidden size={13} /> order {half.least - free}
                    </small>
                  )}
                </td>
                <td className="number">{halvesIn(line, 'reserved') || '·'}</td>
                <td className="number">{halvesIn(line, 'used') || '·'}</td>
                <td>{half.bin}</td>
                {!isNarrow && <td className="number">{half.price === null ? '' : half.price.toFixed(2)}</td>}
                {!isNarrow && (
                  <td className="who">
                    {reservations
                      .map(({ name, count, state }) => `${name} ${count}${state === 'used' ? ' fitted' : ''}`)
                      .join(', ')}
                    {half.findings !== '' && <small>{half.findings}</small>}
                  </td>
                )}
                <td style={{ whiteSpace: 'nowrap' }}>
                  <Button $kind="quiet" aria-label={`Open ${half.grade} ${half.half}`} onPress={() => onOpen(id)}>
                    <ChevronRight aria-hidden size={20} />
                  </Button>
                  {!isNarrow && (
                    <Button
                      $kind="quiet"
                      aria-label={`Take ${half.grade} ${half.half} out of the workshop drawer`}
                      onPress={() =>
                        void act(() =>
                          moveDrawer({ by, kind: 'remove', note: '', changes: [{ id, version, half: null }] }),
                        )
                      }
                    >
                      <Trash2 aria-hidden size={18} />
                    </Button>
                  )}
                </td>
              </Line>
            );
          })}
        </tbody>
      </Table>
    </Scroll>
  );
}

/** The workshop's halves: what is on hand, free, reserved and used, what comes and goes, and what is to be ordered. */
export function WorkshopView() {
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const drawer = useDrawer();
  const { lines, fault, act } = drawer;
  const [unit, setUnit] = useState<Unit>('mm');
  const [isAdding, setAdding] = useState(false);
  const [words, setWords] = useState('');
  const [isOnlyShort, setOnlyShort] = useState(false);
  const [side, setSide] = useState<Side>(null);
  const [told, setTold] = useState<string | null>(null);
  const sorted = inOrder(lines ?? []);
  const short = sorted.filter(isShort);
  const wanted = words.toLowerCase().split(/\s+/u).filter(Boolean);
  const shown = (isOnlyShort ? short : sorted).filter((line) => wanted.every((word) => wordsOf(line).includes(word)));
  const opened = side?.kind === 'half' ? sorted.find(({ id }) => id === side.id) : undefined;
  const toggle = (kind: 'history' | 'kits' | 'import') => setSide(side?.kind === kind ? null : { kind });
  const isBeside = side !== null && side.kind !== 'import';
  const orderTable = () => [
    ['Count', 'Grade', 'Half', 'Family', 'Series', 'Undersize', 'Supplier', 'Price'],
    ...short.map((line) => [
      String(line.half.least - freeHalves(line, null)),
      line.half.grade,
      line.half.half,
      line.half.family,
      line.half.series,
      line.half.undersize ?? '',
      line.half.supplier,
      line.half.price === null ? '' : String(line.half.price),
    ]),
  ];
  const panels: Readonly<Record<'history' | 'kits' | 'import', () => ReactNode>> = {
    history: () => <DrawerHistory by={by} drawer={drawer} />,
    kits: () => <KitsPanel lines={sorted} by={by} act={act} />,
    import: () => (
      <ImportPanel
        lines={sorted}
        unit={unit}
        by={by}
        act={act}
        onDone={(text) => {
          setTold(text);
          setSide(null);
        }}
      />
    ),
  };
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Workshop drawer</PanelTitle>
        <Row>
          <Link to="/together">Fit engines together</Link>
          <Button aria-expanded={side?.kind === 'kits'} onPress={() => toggle('kits')}>
            <Package aria-hidden size={18} />
            Kits
          </Button>
          <Button aria-expanded={side?.kind === 'history'} onPress={() => toggle('history')}>
            <History aria-hidden size={18} />
            History
          </Button>
          <Button aria-expanded={side?.kind === 'import'} onPress={() => toggle('import')}>
            <FileUp aria-hidden size={18} />
            Bring in a file
          </Button>
          <Button $kind="main" aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
            <Plus aria-hidden size={20} />
            Add halves
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {told && <p role="status">{told}</p>}
      {side?.kind === 'import' && panels.import()}
      <Columns $isOpen={isBeside}>
        <Panel>
          <Quiet>
            Shared by all engines on the benches. An engine that draws on a kind of half reserves what its accepted
            choice takes; what is fitted leaves the drawer. Whatever is done here can be taken back under History.
          </Quiet>
          {isAdding && (
            <FamilyForm
              id="workshop"
              unit={unit}
              withRods
              isCounted
              options={HALF_OPTIONS}
              onAdd={(added) => {
                setAdding(false);
                const changes = added.map(({ stock, line: _, ...half }) => ({
                  id: newId(),
                  version: 0,
                  half: drawerHalfSchema.parse({ ...half, onHand: stock ?? 0 }),
                }));
                void act(() => moveDrawer({ by, kind: 'add', note: '', changes }));
              }}
            />
          )}
          {lines === null ? (
            <p aria-busy>Looking into the drawer …</p>
          ) : lines.length === 0 ? (
            <p>Nothing in it yet. Add a graded family by its first wall, its step and its count, or bring in a file.</p>
          ) : (
            <>
              <Row style={{ margin: '0.5rem 0', alignItems: 'end' }}>
                <SearchField
                  label="Search the drawer"
                  placeholder="grade, series, bin, engine"
                  value={words}
                  onChange={setWords}
                />
                {short.length > 0 && (
                  <>
                    <Button aria-pressed={isOnlyShort} onPress={() => setOnlyShort(!isOnlyShort)}>
                      <TriangleAlert aria-hidden size={18} />
                      {isOnlyShort ? 'Show all' : `${short.length} below ${short.length === 1 ? 'its' : 'their'} least`}
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
                        void xlsxOf('Drawer', drawerTable(sorted, unit)).then(({ type, content }) =>
                          saveAs('drawer.xlsx', type, content),
                        )
                      }
                    >
                      <Download aria-hidden size={18} />
                      XLSX
                    </Button>
                  </>
                )}
                <Choice label="Measured in" value={unit} options={UNIT_OPTIONS} onChange={setUnit} />
              </Row>
              {shown.length === 0 ? (
                <p>Nothing in the drawer is like that.</p>
              ) : (
                <LinesTable
                  lines={shown}
                  unit={unit}
                  by={by}
                  act={act}
                  opened={opened?.id ?? null}
                  isNarrow={isBeside}
                  onOpen={(id) => setSide({ kind: 'half', id })}
                />
              )}
            </>
          )}
        </Panel>
        {isBeside && (
          <div>
            {side.kind !== 'half'
              ? panels[side.kind]()
              : opened && (
                  <>
                    <HalfPanel
                      key={opened.id}
                      line={opened}
                      lines={sorted}
                      unit={unit}
                      by={by}
                      act={act}
                      current={drawer.current}
                      onClose={() => setSide(null)}
                    />
                    <DrawerHistory by={by} drawer={drawer} line={opened.id} />
                  </>
                )}
          </div>
        )}
      </Columns>
    </>
  );
}
