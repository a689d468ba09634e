import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../app/store.js';
import { useSettled } from '../app/useSettled.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Row } from '../look/Panel.js';
import { SearchField } from '../look/SearchField.js';
import { NOBODY } from '../person/personSlice.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { EnginePage } from './EnginePage.js';
import { TakenOff } from './TakenOff.js';

const Title = styled.h1`
  font-size: var(--size-title);
  line-height: 1.15;
`;

/** Engines on the benches: how far each is and what is the next thing to do. */
export function BenchList() {
  const navigate = useNavigate();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const [typed, setTyped] = useState('');
  const words = useSettled(typed.trim(), 200);
  // Where each page shown so far begins; another search begins anew.
  const [pages, setPages] = useState<{ words: string; after: readonly string[] }>({ words: '', after: [] });
  const starts = [null, ...(pages.words === words ? pages.after : [])];
  const [fault, setFault] = useState<string | null>(null);
  const waiting = useAppSelector((state) => state.saving.parcels).filter((parcel) => parcel.kind === 'create');
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    action().catch((error: unknown) => setFault(refusalInWords(error)));
  };
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <Title>Engines on the benches</Title>
        <SearchField label="Find an engine" placeholder="name, number" value={typed} onChange={setTyped} />
        <span style={{ flex: 1 }} />
        <Button onPress={() => navigate('/types')}>Engine types</Button>
        <Button onPress={() => navigate('/drawer')}>Workshop drawer</Button>
        <Button onPress={() => navigate('/together')}>Fit engines together</Button>
        <Button $kind="main" onPress={() => navigate('/new')}>
          <Plus aria-hidden size={20} />
          Start an engine
        </Button>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {waiting.map((parcel) => (
        <Notice key={parcel.id}>
          <Link to={`/engines/${parcel.jobId}/data`}>{parcel.document.name}</Link> is kept on this device until the
          server answers.
        </Notice>
      ))}
      {starts.map((after, at) => (
        <EnginePage
          key={`${words} ${after ?? ''}`}
          after={after}
          words={words}
          isLast={at === starts.length - 1}
          onMore={(next) => setPages({ words, after: [...starts.slice(1).flatMap((one) => one ?? []), next] })}
          onTrash={({ id, version }) => act(() => tell('deleteJob', { id, version, by }))}
        />
      ))}
      <TakenOff onBack={({ id, version }) => act(() => tell('restoreJob', { id, body: { version, by } }))} />
    </>
  );
}
