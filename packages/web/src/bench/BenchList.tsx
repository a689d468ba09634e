import { mayDo } from '@fettle/core';
import { Plus } from 'lucide-react';
import { type ComponentProps, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { useSettled } from '../base/useSettled.js';
import { useTitle } from '../base/useTitle.js';
import { lazilyWith } from '../live/lazily.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import type { BenchFilters } from './BenchFilters.js';
import { DueEngines } from './DueEngines.js';
import { EnginePage } from './EnginePage.js';
import { SamplesNotice } from './SamplesNotice.js';
import { TakenOff } from './TakenOff.js';
import { closedText, useBenchList } from './useBenchList.js';

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

/** Engines that were started while the server did not answer. */
function Waiting() {
  const waiting = useAppSelector((state) => state.saving.parcels).filter((parcel) => parcel.kind === 'create');
  return waiting.map((parcel) => (
    <Notice key={parcel.id}>
      <Link to={`/engines/${parcel.jobId}/data`}>{parcel.document.name}</Link>: saved on this device, waiting for the
      server.
    </Notice>
  ));
}

/** Engines on the benches: how far each is and what is the next thing to do. */
export function BenchList() {
  useTitle('Engines');
  const navigate = useNavigate();
  const by = useBy();
  const { typed, setTyped, filter, setStage, setPerson, starts, showMore, fault, closed, close, reopen } =
    useBenchList();
  const { words, stage, person } = filter;
  const [people, setPeople] = useState<readonly string[]>([]);
  const [areSamples, setSamples] = useState(false);
  const isReady = useSettled(true, LATER_MS, false);
  const mayRemove = useAppSelector(
    ({ access }) => access.isOn === false || mayDo(access.session?.person?.role ?? null, 'bench'),
  );
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
              <Filters stage={stage} person={person} people={people} onStage={setStage} onPerson={setPerson} />
            )}
          </FilterPlace>
          <Button $kind="primary" onPress={() => navigate('/new')}>
            <Plus aria-hidden size={20} />
            New engine
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {closed && (
        <Notice actions={<Button onPress={() => reopen(closed)}>Undo</Button>}>
          <span role="status">{closedText(closed)}</span>
        </Notice>
      )}
      <Waiting />
      {isReady && <Reminders.View />}
      {isReady && <DueEngines onBack={(job) => reopen({ ...job, isFitted: false })} />}
      {mayRemove && <SamplesNotice areThere={areSamples} by={by} />}
      {starts.map((after, at) => (
        <EnginePage
          key={[words, stage, person, after].join('|')}
          after={after}
          filter={filter}
          isLast={at === starts.length - 1}
          onMore={showMore}
          onOff={close}
          onPeople={setPeople}
          onSamples={setSamples}
        />
      ))}
      {isReady && <TakenOff onBack={(job) => reopen({ ...job, isFitted: false })} />}
    </>
  );
}
