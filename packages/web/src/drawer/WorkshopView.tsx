import { ANY_WALL, drawerHalfSchema, type Unit } from '@fettle/core';
import { FileUp, History, Package, Plus } from 'lucide-react';
import { type ReactNode, useState } from 'react';
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
import { useWorkshop } from './useWorkshop.js';
import { WorkshopPieces } from './WorkshopPieces.js';
import { WorkshopTools } from './WorkshopTools.js';

const Columns = styled.div<{ $isOpen: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${({ $isOpen }) => ($isOpen ? 'minmax(22rem, 27rem)' : '')};
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
`;

/** The workshop's halves: what is on hand, free, reserved and used, what comes and goes, and what is to be ordered. */
export function WorkshopView() {
  useTitle('Workshop stock');
  const by = useBy();
  const workshop = useWorkshop();
  const pieces = usePieceLines();
  const { drawer, sorted, shown, side, setSide, toggle, opened } = workshop;
  const { lines, fault, act } = drawer;
  const [unit, setUnit] = useState<Unit>('mm');
  const [isAdding, setAdding] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const openedPiece = side?.kind === 'piece' ? pieces?.find(({ id }) => id === side.id) : undefined;
  const isBeside = side !== null && side.kind !== 'import';
  const panels: Readonly<Record<'history' | 'kits' | 'import', () => ReactNode>> = {
    history: () => <DrawerHistory by={by} drawer={drawer} />,
    kits: () => <KitsPanel lines={sorted} by={by} act={act} />,
    import: () => (
      <ImportPanel
        lines={sorted}
        pieces={pieces ?? []}
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
        <PanelTitle as="h1">Workshop stock</PanelTitle>
        <Row>
          <Link to="/together">Select for several engines</Link>
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
            Import
          </Button>
          <Button $kind="primary" aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
            <Plus aria-hidden size={20} />
            Add shells
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {told && (
        <Notice>
          <span role="status">{told}</span>
        </Notice>
      )}
      {side?.kind === 'import' && panels.import()}
      <Columns $isOpen={isBeside}>
        <div>
          <Panel>
            <Quiet>
              Shared by all open engines. Accepting a selection reserves its shells; fitted shells leave stock. Undo
              under History.
            </Quiet>
            {isAdding && (
              <FamilyForm
                id="workshop"
                unit={unit}
                withRods
                isCounted
                spanOf={() => ANY_WALL}
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
              <p aria-busy>Loading stock …</p>
            ) : lines.length === 0 ? (
              <p>No stock yet. Add a graded family by first wall, step and count, or import a file.</p>
            ) : (
              <>
                <WorkshopTools workshop={workshop} unit={unit} onUnit={setUnit} isBeside={isBeside} />
                {shown.length === 0 ? (
                  <p>No matches.</p>
                ) : (
                  <LinesTable
                    lines={shown}
                    unit={unit}
                    by={by}
                    act={act}
                    opened={opened?.id ?? null}
                    isNarrow={isBeside}
                    onOpen={(id) => setSide({ kind: 'half', id })}
                    onTold={setTold}
                  />
                )}
              </>
            )}
          </Panel>
          {/* Below a list that is not there yet it would be pushed away when that comes. */}
          {(lines !== null || fault) && (
            <WorkshopPieces
              lines={pieces}
              unit={unit}
              by={by}
              act={act}
              opened={openedPiece?.id ?? null}
              onOpen={(id) => setSide({ kind: 'piece', id })}
            />
          )}
        </div>
        {isBeside && (
          <div>
            {side.kind === 'piece'
              ? openedPiece && (
                  <>
                    <PiecePanel
                      key={openedPiece.id}
                      line={openedPiece}
                      unit={unit}
                      by={by}
                      act={act}
                      onClose={() => setSide(null)}
                    />
                    <DrawerHistory key={`${openedPiece.id} history`} by={by} drawer={drawer} line={openedPiece.id} />
                  </>
                )
              : side.kind !== 'half'
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
                      <DrawerHistory key={`${opened.id} history`} by={by} drawer={drawer} line={opened.id} />
                    </>
                  )}
          </div>
        )}
      </Columns>
    </>
  );
}
