import { ANY_WALL, FAMILIES, type Family, lengthText, middleWall, shellsInOrder, wallSpan } from '@fettle/core';
import { Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { useDrawer } from '../drawer/useDrawer.js';
import { FamilyForm } from '../halves/FamilyForm.js';
import { HALF_OPTIONS } from '../halves/halfOptions.js';
import { otherFamily } from '../halves/otherFamily.js';
import { useOpenJob } from '../job/JobPage.js';
import { goToNext, mayTakeFocus } from '../job/nextThing.js';
import { useChangeDocument } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { PiecesPanel } from './PiecesPanel.js';
import { RulesPanel } from './RulesPanel.js';
import { SheetPanel } from './SheetPanel.js';
import { ShellsTable } from './ShellsTable.js';
import { WallsSeenPanel } from './WallsSeenPanel.js';
import { WorkshopPanel } from './WorkshopPanel.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(20rem, 2fr);
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { display: flex; flex-direction: column; gap: 0.75rem; }
`;

/** The halves on hand for this engine, and the rules by which they are paired. */
export function StockView() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document } = job;
  const drawer = useDrawer({ job: job.id });
  const shells = shellsInOrder(document);
  const [isOpen, setOpen] = useState(shells.length === 0);
  const { state, key } = useLocation();
  const isSent = (state as { toNext?: boolean } | null)?.toNext === true;
  const [isFocused, setFocused] = useState(() => isSent && mayTakeFocus(key));
  // The form that was filled in goes away, and the focus goes on to what is next.
  const isDone = useRef(false);
  useEffect(() => {
    if (isOpen || !isDone.current) return;
    isDone.current = false;
    goToNext();
  }, [isOpen]);
  const thinnest =
    shells.length > 0
      ? shells.reduce((least, { shell }) => (shell.wall < least ? shell.wall : least), shells[0]!.shell.wall)
      : null;
  return (
    <Columns>
      <div>
        <Panel>
          <Row style={{ justifyContent: 'space-between' }}>
            <PanelTitle>Shells in stock</PanelTitle>
            <Button
              $kind={shells.length === 0 ? 'primary' : 'plain'}
              onPress={() => {
                setFocused(true);
                setOpen(!isOpen);
              }}
              aria-expanded={isOpen}
            >
              <Plus aria-hidden size={20} />
              Add shells
            </Button>
          </Row>
          {isOpen && (
            <FamilyForm
              id={job.id}
              unit={document.unit}
              withRods={document.withRods}
              isCounted={false}
              isFocused={isFocused}
              wallOf={(family) => middleWall(document, family)}
              spanOf={(family) => wallSpan(document, family) ?? ANY_WALL}
              options={HALF_OPTIONS}
              onAdd={(added) => {
                change((old) => ({
                  ...old,
                  shells: { ...old.shells, ...Object.fromEntries(added.map((shell) => [newId(), shell])) },
                }));
                // The shells of the rods come next, as long as there are none.
                const isOther = (family: Family) => shells.every(({ shell }) => shell.family !== family);
                const other = otherFamily(added[0]?.family ?? FAMILIES[0]);
                if (document.withRods && isOther(other)) return;
                isDone.current = true;
                setOpen(false);
              }}
            />
          )}
          {shells.length === 0 ? (
            <Quiet>
              No stock yet. Add a graded family by first wall, step and count, or a single shell with a count of one.
            </Quiet>
          ) : (
            <ShellsTable job={job.id} document={document} change={change} lines={drawer.lines} />
          )}
          {thinnest !== null && (
            <Quiet>
              Walls are measured at the crown. Thinnest here:{' '}
              <span className="figure">{lengthText(thinnest, document.unit)}</span>. Blank stock is not counted:
              unlimited.
            </Quiet>
          )}
        </Panel>
        <PiecesPanel job={job} />
      </div>
      <div>
        <WorkshopPanel job={job} drawer={drawer} />
        <WallsSeenPanel />
        <SheetPanel job={job} />
        <RulesPanel job={job.id} document={document} change={change} />
      </div>
    </Columns>
  );
}
