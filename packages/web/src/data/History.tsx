import type { JobChange } from '@fettle/core';
import { format } from 'date-fns';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { Panel, PanelTitle, Quiet } from '../look/Panel.js';
import { fetchHistory } from '../saving/api.js';

const KINDS: Readonly<Record<JobChange['kind'], string>> = {
  created: 'put it on the bench',
  changed: 'changed',
  deleted: 'took it off the bench',
  restored: 'brought it back',
  read: 'read',
};
const SHOWN = 40;

const List = styled.ol`
  max-height: 17rem;
  overflow-y: auto;
  margin-top: 0.5rem;
  li { padding: 0.3rem 0; border-top: var(--rule) solid var(--line); font-size: var(--size-small); overflow-wrap: anywhere; }
  .figure { color: var(--ink-soft); }
`;

function what({ kind, changes }: JobChange): string {
  const [first] = changes;
  if (kind === 'read' && first) {
    const place = first.path
      .split('/')
      .slice(2)
      .join(' ')
      .replace('mainBore', 'bore')
      .replace('mainJournal', 'journal')
      .replace('bigEnd', 'big end');
    const now = first.to === '' ? 'taken back' : String(first.to);
    return `${place}: ${first.from === undefined ? '' : `${first.from} → `}${now}`;
  }
  if (kind !== 'changed') return KINDS[kind];
  const places = [...new Set(changes.map(({ path }) => path.split('/').slice(1, 3).join(' › ')))];
  return `changed ${places.slice(0, 3).join(', ')}${places.length > 3 ? ` and ${places.length - 3} more` : ''}`;
}

/** Who changed what, and when, newest first. */
export function History({ id, revision }: { readonly id: string; readonly revision: number }) {
  const [changes, setChanges] = useState<readonly JobChange[] | null>(null);
  const [isMissing, setMissing] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new revision is what makes it worth asking again
  useEffect(() => {
    let isCurrent = true;
    fetchHistory(id)
      .then((list) => isCurrent && setChanges(list))
      .catch(() => isCurrent && setMissing(true));
    return () => {
      isCurrent = false;
    };
  }, [id, revision]);
  return (
    <Panel>
      <PanelTitle>Who did what</PanelTitle>
      {changes === null && <Quiet>{isMissing ? 'The server has to answer for this.' : 'Looking it up …'}</Quiet>}
      <List tabIndex={0} aria-label="History, newest first">
        {changes?.slice(0, SHOWN).map((change) => (
          <li key={`${change.at} ${change.kind} ${change.changes[0]?.path}`}>
            <span className="figure">{format(new Date(change.at), 'd MMM HH:mm')}</span> {change.by}: {what(change)}
          </li>
        ))}
      </List>
    </Panel>
  );
}
