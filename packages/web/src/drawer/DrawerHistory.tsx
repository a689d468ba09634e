import type { DrawerMovement, Json } from '@fettle/core';
import { changesBetween, drawerItemLabel, momentText } from '@fettle/core';
import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { Pager } from '../ui/Pager.js';
import { PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import type { Drawer } from './useDrawer.js';

const KINDS: Readonly<Record<DrawerMovement['kind'], string>> = {
  receive: 'Received',
  use: 'Used',
  return: 'Returned',
  count: 'Counted',
  number: 'Numbered',
  change: 'Changed',
  add: 'Added',
  remove: 'Removed from stock',
  import: 'Imported',
  fitted: 'Fitted into an engine',
  unfitted: 'Fitting undone',
  undo: 'Undone',
};

/** Entries on a page. */
const SHOWN = 40;
/** Maximum kinds of shell listed for one stock entry; more are counted. */
const TOLD = 4;

const Movements = styled.div`
  td { vertical-align: top; font-size: var(--size-small); overflow-wrap: anywhere; }
  button { white-space: nowrap; }
  button svg { flex: none; }
  td.undone { text-decoration: line-through; color: var(--ink-soft); }
`;

/** What one change did to a line of the drawer. */
function changeText({ before, after }: DrawerMovement['changes'][number]): string {
  const item = (after ?? before)!;
  const name = `${drawerItemLabel(item)}${item.number === undefined ? '' : ` no. ${item.number}`}`;
  if (!before) return `${name}: ${item.onHand} added`;
  if (!after) return `${name}: removed, ${item.onHand} before`;
  const by = after.onHand - before.onHand;
  const others = (Object.keys(after) as (keyof typeof after)[]).filter(
    (key) => key !== 'onHand' && changesBetween(before[key] as Json, after[key] as Json).length > 0,
  );
  return [
    ...(by === 0 ? [] : [`${name}: ${by > 0 ? '+' : '−'}${Math.abs(by)}, now ${after.onHand}`]),
    ...(others.length === 0 ? [] : [`${by === 0 ? `${name}: ` : ''}${others.join(', ')} changed`]),
  ].join('; ');
}

function columnsOf(line: string | undefined, undo: (id: string) => void): DataColumn<DrawerMovement>[] {
  const isUndone = ({ undone }: DrawerMovement) => (undone ? 'undone' : undefined);
  return [
    {
      key: 'at',
      head: 'When',
      sortBy: ({ at }) => at,
      cell: ({ at, by }) => (
        <>
          <span className="figure">{momentText(at)}</span>
          <Quiet>{by}</Quiet>
        </>
      ),
    },
    {
      key: 'what',
      head: 'Change',
      className: isUndone,
      sortBy: ({ kind }) => KINDS[kind],
      cell: ({ kind, note, changes }) => {
        const own = changes.filter((change) => line === undefined || change.line === line);
        return (
          <>
            <strong>{KINDS[kind]}</strong>
            {note !== '' && <Quiet>{note}</Quiet>}
            {own.slice(0, TOLD).map((change) => (
              <Quiet key={change.line}>{changeText(change)}</Quiet>
            ))}
            {own.length > TOLD && <Quiet>and {own.length - TOLD} more</Quiet>}
          </>
        );
      },
    },
    {
      key: 'undo',
      head: <span className="visually-hidden">Undo</span>,
      cell: ({ id, kind, undone, changes }) =>
        undone ? (
          <Quiet>undone</Quiet>
        ) : kind === 'fitted' || kind === 'unfitted' ? null : (
          <Button aria-label={`Undo: ${KINDS[kind]}, ${changes.map(changeText)[0] ?? ''}`} onPress={() => undo(id)}>
            <Undo2 aria-hidden size={18} />
            Undo
          </Button>
        ),
    },
  ];
}

interface DrawerHistoryProps {
  readonly by: string;
  readonly drawer: Drawer;
  /** Only what was done to one kind of half. */
  readonly line?: string;
}

/** What was done to the drawer, the last first; each can be taken back. */
export function DrawerHistory({ by, drawer, line }: DrawerHistoryProps) {
  const { act } = drawer;
  const [after, setAfter] = useState<string>();
  const { data, error } = api.useDrawerHistoryQuery({ line, most: SHOWN, after }, { refetchOnMountOrArgChange: true });
  return (
    <OpenedPanel aria-label="Stock history">
      <PanelTitle>{line === undefined ? 'Stock history' : 'History'}</PanelTitle>
      {error && <p role="alert">{refusalInWords(error)}</p>}
      {data?.entries.length === 0 && <Quiet>No entries.</Quiet>}
      <Movements>
        <DataTable
          label="Changes, newest first"
          items={data?.entries ?? []}
          columns={columnsOf(line, (id) => void act(() => tell('undoMovement', { id, body: { by } })))}
          keyOf={({ id }) => id}
        />
      </Movements>
      {data && <Pager after={after} goesOn={data.goesOn} onGo={setAfter} />}
    </OpenedPanel>
  );
}
