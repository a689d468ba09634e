import { changeWords, type JobChange, momentText } from '@fettle/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { store } from '../base/store.js';
import { useQuery, useSetQuery } from '../base/useQuery.js';
import { useOpenJob } from '../job/JobPage.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';

const SHOWN = 60;

const Days = styled.div`
  h3 { font-size: var(--size-body); margin: 0.9rem 0 0.25rem; }
  ol { list-style: none; padding: 0; margin: 0; }
  li {
    display: grid; grid-template-columns: 4rem minmax(6rem, 10rem) minmax(0, 1fr); gap: 0 1rem; padding: 0.35rem 0;
    border-top: var(--rule) solid var(--line); overflow-wrap: anywhere;
  }
  @media (max-width: 640px) { li { grid-template-columns: 4rem minmax(0, 1fr); } li > :last-child { grid-column: 1 / -1; } }
`;

const WHATS = [
  { value: 'all', label: 'everything' },
  { value: 'readings', label: 'readings' },
  { value: 'changes', label: 'changes' },
] as const;

/** Entries of one day together, in the order they come. */
function byDay(entries: readonly JobChange[]): { day: string; entries: JobChange[] }[] {
  const days: { day: string; entries: JobChange[] }[] = [];
  for (const entry of entries) {
    const day = momentText(entry.at, 'weekday');
    const last = days.at(-1);
    if (last?.day === day) last.entries.push(entry);
    else days.push({ day, entries: [entry] });
  }
  return days;
}

/** Who did what to an engine and when, by day, newest first. */
export function HistoryView() {
  const job = useOpenJob();
  const [whatText] = useQuery('what');
  const [person] = useQuery('person');
  const [after] = useQuery('after');
  const setQuery = useSetQuery(true);
  const [typed, setTyped] = useState(person ?? '');
  const what = WHATS.find(({ value }) => value === whatText)?.value ?? 'all';
  const asked = {
    id: job.id,
    most: SHOWN,
    what,
    ...(after === null ? {} : { after }),
    ...(person === null ? {} : { person }),
  };
  // A new revision is what makes it worth asking again.
  const { data, error } = api.useJobHistoryQuery(asked, {
    refetchOnMountOrArgChange: true,
    skip: job.view === null,
  });
  const revision = job.view?.revision ?? 0;
  const known = useRef(revision);
  useEffect(() => {
    if (known.current !== revision) store.dispatch(api.util.invalidateTags(['history']));
    known.current = revision;
  }, [revision]);
  return (
    <Panel aria-label="History">
      <Row style={{ alignItems: 'end' }}>
        <PanelTitle style={{ flex: 1 }}>History</PanelTitle>
        <Choice
          label="Show"
          value={what}
          options={WHATS}
          onChange={(value) => setQuery({ what: value === 'all' ? null : value, after: null })}
        />
        <Field
          label="Only by"
          value={typed}
          placeholder="anybody"
          maxLength={60}
          onChange={setTyped}
          onBlur={() => setQuery({ person: typed.trim() || null, after: null })}
          onKeyDown={(event) => event.key === 'Enter' && setQuery({ person: typed.trim() || null, after: null })}
        />
      </Row>
      {!data && <Quiet>{error ? 'This needs the server.' : 'Loading …'}</Quiet>}
      {data && data.entries.length === 0 && <p>No entries.</p>}
      <Days>
        {byDay(data?.entries ?? []).map(({ day, entries }) => (
          <section key={`${day} ${entries[0]!.id}`} aria-label={day}>
            <h3>{day}</h3>
            <ol>
              {entries.map((entry) => (
                <li key={entry.id}>
                  <span className="figure">{momentText(entry.at, 'time')}</span>
                  <strong>{entry.by}</strong>
                  <span>{changeWords(entry, job.document, momentText)}</span>
                </li>
              ))}
            </ol>
          </section>
        ))}
      </Days>
      {data && (
        <Pager after={after ?? undefined} goesOn={data.goesOn} onGo={(next) => setQuery({ after: next ?? null })} />
      )}
    </Panel>
  );
}
