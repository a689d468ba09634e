import { type DrawerMovement, shellLabel } from '@fettle/core';
import { format } from 'date-fns';
import { Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../look/Button.js';
import { Panel, PanelTitle, Quiet } from '../look/Panel.js';
import { fetchMovements, undoMovement } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';
import type { Drawer } from './useDrawer.js';

const KINDS: Readonly<Record<DrawerMovement['kind'], string>> = {
  receive: 'Received',
  use: 'Used',
  return: 'Returned',
  count: 'Counted',
  number: 'Numbered',
  change: 'Changed',
  add: 'Added',
  remove: 'Taken out of the drawer',
  import: 'Brought in from a file',
  fitted: 'Fitted into an engine',
  unfitted: 'Fitting taken back',
  undo: 'Taken back',
};

const List = styled.ul`
  max-height: 34rem;
  overflow-y: auto;
  > li { display: flex; gap: 0.75rem; justify-content: space-between; align-items: start; padding: 0.45rem 0; border-top: var(--rule) solid var(--line); }
  li.undone { color: var(--ink-soft); }
`;

/** What one change did to a kind of half. */
function changeText({ before, after }: DrawerMovement['changes'][number]): string {
  const half = (after ?? before)!;
  const name = `${shellLabel(half)}${half.number === undefined ? '' : ` no. ${half.number}`}`;
  if (!before) return `${name}: ${half.onHand} put in`;
  if (!after) return `${name}: gone, ${half.onHand} were there`;
  const by = after.onHand - before.onHand;
  const others = (Object.keys(after) as (keyof typeof after)[]).filter(
    (key) => key !== 'onHand' && JSON.stringify(after[key]) !== JSON.stringify(before[key]),
  );
  return [
    ...(by === 0 ? [] : [`${name}: ${by > 0 ? '+' : '−'}${Math.abs(by)}, now ${after.onHand}`]),
    ...(others.length === 0 ? [] : [`${by === 0 ? `${name}: ` : ''}${others.join(', ')} changed`]),
  ].join('; ');
}

interface DrawerHistoryProps {
  readonly by: string;
  readonly drawer: Drawer;
  /** Only what was done to one kind of half. */
  readonly line?: string;
}

/** What was done to the drawer, the last first; each can be taken back. */
export function DrawerHistory({ by, drawer, line }: DrawerHistoryProps) {
  const [movements, setMovements] = useState<readonly DrawerMovement[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { lines, act } = drawer;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked up again whenever the drawer has changed
  useEffect(() => {
    fetchMovements()
      .then(setMovements)
      .catch((error: unknown) => setFault(refusalInWords(error)));
  }, [lines]);
  const shown = (movements ?? []).filter(
    ({ changes }) => line === undefined || changes.some((change) => change.line === line),
  );
  return (
    <Panel aria-label="History of the drawer">
      <PanelTitle>{line === undefined ? 'History of the drawer' : 'History'}</PanelTitle>
      {fault && <p role="alert">{fault}</p>}
      {movements !== null && shown.length === 0 && <Quiet>Nothing was done yet.</Quiet>}
      <List>
        {shown.slice(0, 60).map((movement) => (
          <li key={movement.id} className={movement.undone ? 'undone' : ''}>
            <div>
              <strong>{KINDS[movement.kind]}</strong>
              {movement.undone && ', taken back since'}{' '}
              <Quiet as="span">
                {format(new Date(movement.at), 'd MMM HH:mm')}, {movement.by}
              </Quiet>
              {movement.note !== '' && <Quiet>{movement.note}</Quiet>}
              {movement.changes
                .filter((change) => line === undefined || change.line === line)
                .slice(0, 4)
                .map((change) => (
                  <Quiet key={change.line}>{changeText(change)}</Quiet>
                ))}
              {movement.changes.length > 4 && <Quiet>and {movement.changes.length - 4} more</Quiet>}
            </div>
            {!movement.undone && movement.kind !== 'fitted' && movement.kind !== 'unfitted' && (
              <Button
                aria-label={`Take back: ${KINDS[movement.kind]}, ${movement.changes.map(changeText)[0] ?? ''}`}
                onPress={() => void act(() => undoMovement(movement.id, by))}
              >
                <Undo2 aria-hidden size={18} />
                Take back
              </Button>
            )}
          </li>
        ))}
      </List>
    </Panel>
  );
}
