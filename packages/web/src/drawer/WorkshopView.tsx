import { ANY_WALL, drawerHalfSchema, type PieceLine, type Unit } from '@fettle/core';
import { FileUp, History, Package, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { useTitle } from '../base/useTitle.js';
import { FamilyForm } from '../halves/FamilyForm.js';
import { HALF_OPTIONS } from '../halves/halfOptions.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { DrawerHistory } from './DrawerHistory.js';
import { HalfPanel } from './HalfPanel.js';
import { ImportPanel } from './ImportPanel.js';
import { KitsPanel } from './KitsPanel.js';
import { LinesTable } from './LinesTable.js';
import { moveDrawer } from './moveDrawer.js';
import { PiecePanel } from './PiecePanel.js';
import { usePieceLines } from './usePieceLines.js';
import { useWorkshop, type Workshop } from './useWorkshop.js';
import { WorkshopPieces } from './WorkshopPieces.js';
import { WorkshopTools } from './WorkshopTools.js';

const Columns = styled.div<{ $isOpen: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${({ $isOpen }) => ($isOpen ? 'minmax(22rem, 27rem)' : '')};
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
  /* Opened from low in the list it begins in sight, and scrolls by itself. */
  @media (min-width: 1081px) {
    > .beside { position: sticky; top: 0.5rem; max-height: calc(100vh - 1rem); overflow-y: auto; overflow-anchor: none; }
    > .beside > * { flex: none; }
  }
`;

interface WorkshopProps {
  readonly workshop: Workshop;
  readonly unit: Unit;
}

interface HeadProps extends Pick<WorkshopProps, 'workshop'> {
  readonly isAdding: boolean;
  readonly onAdd: (isAdding: boolean) => void;
}

/** What is done with the stock as a whole. */
function Head({ workshop: { beside, toggle }, isAdding, onAdd }: HeadProps) {
  return (
    <Row style={{ justifyContent: 'space-between' }}>
      <PanelTitle as="h1">Workshop stock</PanelTitle>
      <Row>
        <Link to="/together">Select for several engines</Link>
        <Button aria-expanded={beside?.kind === 'kits'} onPress={() => toggle('kits')}>
          <Package aria-hidden size={18} />
          Kits
        </Button>
        <Button aria-expanded={beside?.kind === 'history'} onPress={() => toggle('history')}>
          <History aria-hidden size={18} />
          History
        </Button>
        <Button aria-expanded={beside?.kind === 'import'} onPress={() => toggle('import')}>
          <FileUp aria-hidden size={18} />
          Import
        </Button>
        <Button $kind="primary" aria-expanded={isAdding} onPress={() => onAdd(!isAdding)}>
          <Plus aria-hidden size={20} />
          Add shells
        </Button>
      </Row>
    </Row>
  );
}

/** A graded family that is added to the stock, a kind of half a wall. */
function AddShells({ workshop, unit, onAdded }: WorkshopProps & { readonly onAdded: () => void }) {
  const by = useBy();
  return (
    <FamilyForm
      id="workshop"
      unit={unit}
      withRods
      isCounted
      spanOf={() => ANY_WALL}
      options={HALF_OPTIONS}
      onAdd={(added) => {
        onAdded();
        const changes = added.map(({ stock, line: _, ...half }) => ({
          id: newId(),
          version: 0,
          half: drawerHalfSchema.parse({ ...half, onHand: stock ?? 0 }),
        }));
        void workshop.drawer.act(() => moveDrawer({ by, kind: 'add', note: '', changes }));
      }}
    />
  );
}

interface ShellsProps extends WorkshopProps {
  readonly isBeside: boolean;
  readonly onUnit: (unit: Unit) => void;
  readonly onTold: (text: string | null) => void;
}

/** The kinds of half in stock that are looked for. */
function Shells({ workshop, unit, isBeside, onUnit, onTold }: ShellsProps) {
  const by = useBy();
  const { drawer, shown, opened, setBeside } = workshop;
  if (drawer.lines === null) return <p aria-busy>Loading stock …</p>;
  if (drawer.lines.length === 0)
    return <p>No stock yet. Add a graded family by first wall, step and count, or import a file.</p>;
  return (
    <>
      <WorkshopTools workshop={workshop} unit={unit} onUnit={onUnit} isBeside={isBeside} />
      {shown.length === 0 ? (
        <p>No matches.</p>
      ) : (
        <LinesTable
          lines={shown}
          unit={unit}
          by={by}
          act={drawer.act}
          opened={opened?.id ?? null}
          isNarrow={isBeside}
          onOpen={(id) => setBeside({ kind: 'half', id })}
          onTold={onTold}
        />
      )}
    </>
  );
}

interface BesideProps extends WorkshopProps {
  readonly beside: Exclude<NonNullable<Workshop['beside']>, { readonly kind: 'import' }>;
  /** The washer or shim that is open. */
  readonly piece: PieceLine | undefined;
}

/** What stands beside the stock: the kind that is open with its history, the history of all, or the kits. */
function Beside({ workshop, unit, beside, piece }: BesideProps) {
  const by = useBy();
  const { drawer, sorted, opened, setBeside } = workshop;
  const { act } = drawer;
  if (beside.kind === 'history') return <DrawerHistory by={by} drawer={drawer} />;
  if (beside.kind === 'kits') return <KitsPanel lines={sorted} by={by} act={act} />;
  const common = { unit, by, act, onClose: () => setBeside(null) };
  if (beside.kind === 'piece') {
    return (
      piece && (
        <>
          <PiecePanel key={piece.id} line={piece} {...common} />
          <DrawerHistory key={`${piece.id} history`} by={by} drawer={drawer} line={piece.id} />
        </>
      )
    );
  }
  return (
    opened && (
      <>
        <HalfPanel key={opened.id} line={opened} lines={sorted} current={drawer.current} {...common} />
        <DrawerHistory key={`${opened.id} history`} by={by} drawer={drawer} line={opened.id} />
      </>
    )
  );
}

/**
 * Brings a panel into sight whenever something else is opened in it: on a small screen it stands below the whole list.
 *
 * @param what - what is open; null for nothing. What the page comes with is left where it is.
 */
function useInSight(what: string | null) {
  const panel = useRef<HTMLDivElement>(null);
  const before = useRef(what);
  useEffect(() => {
    const isOther = what !== null && what !== before.current;
    before.current = what;
    if (!isOther) return;
    // The list beside it, or above it, changes its height with its columns, a frame later.
    const frame = requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        if (!panel.current) return;
        panel.current.scrollTop = 0;
        const { top } = panel.current.getBoundingClientRect();
        if (top < 0 || top > window.innerHeight / 2) panel.current.scrollIntoView({ block: 'start' });
      }),
    );
    return () => cancelAnimationFrame(frame);
  }, [what]);
  return panel;
}

/** The workshop's halves: what is on hand, free, reserved and used, what comes and goes, and what is to be ordered. */
export function WorkshopView() {
  useTitle('Workshop stock');
  const by = useBy();
  const workshop = useWorkshop();
  const pieces = usePieceLines();
  const { drawer, sorted, beside, setBeside } = workshop;
  const { lines, fault, act } = drawer;
  const [unit, setUnit] = useState<Unit>('mm');
  const [isAdding, setAdding] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const piece = beside?.kind === 'piece' ? pieces?.find(({ id }) => id === beside.id) : undefined;
  const panel = beside === null || beside.kind === 'import' ? null : beside;
  const inSight = useInSight(panel && ('id' in panel ? panel.id : panel.kind));
  return (
    <>
      <Head workshop={workshop} isAdding={isAdding} onAdd={setAdding} />
      {fault && <Notice urgent>{fault}</Notice>}
      {told && (
        <Notice>
          <span role="status">{told}</span>
        </Notice>
      )}
      {beside?.kind === 'import' && (
        <ImportPanel
          lines={sorted}
          pieces={pieces ?? []}
          unit={unit}
          by={by}
          act={act}
          onDone={(text) => {
            setTold(text);
            setBeside(null);
          }}
        />
      )}
      <Columns $isOpen={panel !== null}>
        <div>
          <Panel>
            <Quiet>
              Shared by all open engines. Accepting a selection reserves its shells; fitted shells leave stock. Undo
              under History.
            </Quiet>
            {isAdding && <AddShells workshop={workshop} unit={unit} onAdded={() => setAdding(false)} />}
            <Shells workshop={workshop} unit={unit} isBeside={panel !== null} onUnit={setUnit} onTold={setTold} />
          </Panel>
          {/* Below a list that is not there yet it would be pushed away when that comes. */}
          {(lines !== null || fault) && (
            <WorkshopPieces
              lines={pieces}
              unit={unit}
              by={by}
              act={act}
              opened={piece?.id ?? null}
              onOpen={(id) => setBeside({ kind: 'piece', id })}
            />
          )}
        </div>
        {panel && (
          <div className="beside" ref={inSight}>
            <Beside workshop={workshop} unit={unit} beside={panel} piece={piece} />
          </div>
        )}
      </Columns>
    </>
  );
}
