import { type JobSummary, mayDo, STAGES } from '@fettle/core';
import { Plus } from 'lucide-react';
import { type ComponentProps, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { useSetQuery } from '../base/useQuery.js';
import { useSettled } from '../base/useSettled.js';
import { useTitle } from '../base/useTitle.js';
import { lazilyWith } from '../live/lazily.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import type { BenchFilters } from './BenchFilters.js';
import { DueEngines } from './DueEngines.js';
import { type BenchFilter, EnginePage, type OffBench } from './EnginePage.js';
import { SamplesNotice } from './SamplesNotice.js';
import { TakenOff } from './TakenOff.js';

const Title = styled.h1`
  font-size: var(--size-title);
  line-height: 1.15;
`;

/** Kept for the filters until they are there: nothing moves when they come. */
const FilterPlace = styled.div`
  display: grid;
  grid-template-columns: repeat(2, 8.5rem);
  gap: 0.5rem;
  align-items: end;
  min-height: calc(var(--target) + 1.5rem);
  @media (max-width: 640px) { flex: 1 1 100%; grid-template-columns: repeat(2, minmax(0, 1fr)); }
`;

/** How long after the page has come the filters are fetched, ms. */
const LATER_MS = 1500;

/** Lists that open are more than a first visit needs. */
const filters = lazilyWith<ComponentProps<typeof BenchFilters>>(
  async () => (await import('./BenchFilters.js')).BenchFilters,
);
const Filters = filters.View;

/** Asked for once the engines are there. */
const Reminders = lazilyWith(async () => (await import('../instrument/InstrumentReminders.js')).InstrumentReminders);

/** An engine that was just taken off the bench. */
interface Gone {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  /** How many halves and pieces were reserved for it. */
  readonly count: number;
  readonly isFitted: boolean;
}

function goneText({ name, count, isFitted }: Gone): string {
  if (count === 0) return `${name} closed.`;
  const what = count === 1 ? 'one part' : `${count} parts`;
  return isFitted
    ? `${name} closed; ${what} fitted in it removed from stock.`
    : `${name} closed; ${what} back in stock.`;
}

/** Engines on the benches: how far each is and what is the next thing to do. */
export function BenchList() {
  useTitle('Engines');
  const navigate = useNavigate();
  const by = useBy();
  const [query] = useSearchParams();
  const setQuery = useSetQuery(true);
  const [typed, setTyped] = useState(query.get('words') ?? '');
  const words = useSettled(typed.trim(), 200);
  const stage = STAGES.find((one) => one === query.get('stage')) ?? null;
  const person = query.get('person');
  const filter = useMemo(() => ({ words, stage, person }), [words, stage, person]);
  // Where each page shown so far begins; another search begins anew.
  const [pages, setPages] = useState<{ filter: BenchFilter; after: readonly string[] }>({ filter, after: [] });
  const starts = [null, ...(pages.filter === filter ? pages.after : [])];
  const [fault, setFault] = useState<string | null>(null);
  const [gone, setGone] = useState<Gone | null>(null);
  const [people, setPeople] = useState<readonly string[]>([]);
  const [areSamples, setSamples] = useState(false);
  const isReady = useSettled(true, LATER_MS, false);
  const mayRemove = useAppSelector(
    ({ access }) => access.isOn === false || mayDo(access.session?.person?.role ?? null, 'bench'),
  );
  const waiting = useAppSelector((state) => state.saving.parcels).filter((parcel) => parcel.kind === 'create');
  useEffect(() => {
    setQuery({ words: words === '' ? null : words });
  }, [words, setQuery]);
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    action().catch((error: unknown) => setFault(refusalInWords(error)));
  };
  const takeOff = ({ id, version, name, held }: JobSummary, reserved: OffBench) =>
    act(async () => {
      const isFitted = reserved === 'fitted';
      if (isFitted) await tell('setFitted', { id, body: { by, fitted: true } });
      const after = await tell('deleteJob', { id, version, by });
      setGone({ id, name, version: after.version, count: held.reserved, isFitted });
    });
  const bringBack = ({ id, version, isFitted }: Pick<Gone, 'id' | 'version' | 'isFitted'>) =>
    act(async () => {
      await tell('restoreJob', { id, body: { version, by } });
      if (isFitted) await tell('setFitted', { id, body: { by, fitted: false } });
      setGone(null);
    });
  return (
    <>
      <Row style={{ justifyContent: 'space-between', alignItems: 'end' }}>
        <div style={{ flex: '1 1 22rem' }}>
          <Title>Engines</Title>
          <Quiet>
            Fettle selects bearing shells and shims from your measurements and shows the clearance at every station.
          </Quiet>
        </div>
        <Row style={{ alignItems: 'end' }}>
          <SearchField label="Find an engine" placeholder="name, number" value={typed} onChange={setTyped} />
          <FilterPlace>
            {(isReady || stage !== null || person !== null) && (
              <Filters
                stage={stage}
                person={person}
                people={people}
                onStage={(next) => setQuery({ stage: next })}
                onPerson={(next) => setQuery({ person: next })}
              />
            )}
          </FilterPlace>
          <Button $kind="primary" onPress={() => navigate('/new')}>
            <Plus aria-hidden size={20} />
            New engine
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {gone && (
        <Notice actions={<Button onPress={() => bringBack(gone)}>Undo</Button>}>
          <span role="status">{goneText(gone)}</span>
        </Notice>
      )}
      {waiting.map((parcel) => (
        <Notice key={parcel.id}>
          <Link to={`/engines/${parcel.jobId}/data`}>{parcel.document.name}</Link>: saved on this device, waiting for
          the server.
        </Notice>
      ))}
      {isReady && <Reminders.View />}
      {isReady && <DueEngines onBack={(job) => bringBack({ ...job, isFitted: false })} />}
      {mayRemove && <SamplesNotice areThere={areSamples} by={by} />}
      {starts.map((after, at) => (
        <EnginePage
          key={[words, stage, person, after].join('|')}
          after={after}
          filter={filter}
          isLast={at === starts.length - 1}
          onMore={(next) => setPages({ filter, after: [...starts.slice(1).flatMap((one) => one ?? []), next] })}
          onOff={takeOff}
          onPeople={setPeople}
          onSamples={setSamples}
        />
      ))}
      {isReady && <TakenOff onBack={(job) => bringBack({ ...job, isFitted: false })} />}
    </>
  );
}
