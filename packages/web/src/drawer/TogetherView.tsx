import type { JobsLeftOut, JobView } from '@fettle/core';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { SteadyButton } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TogetherOutcome } from './TogetherOutcome.js';
import { TogetherPieces } from './TogetherPieces.js';
import { TogetherProgress } from './TogetherProgress.js';
import { usePieceLines } from './usePieceLines.js';
import { MOST_TOGETHER, type Together, useTogether } from './useTogether.js';

const LEFT_OUT: Readonly<Record<JobsLeftOut['reason'], string>> = {
  'nothing-to-choose': 'nothing measured yet, or no clearance limits',
  'not-on-the-drawer': 'does not use workshop stock',
  'other-rules': 'its selection rules differ from those of the first engine',
  'other-unit': 'it is measured in another unit than the first engine',
};

const Engines = styled.ul`
  list-style: none;
  margin: 0.5rem 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(20rem, 100%), 1fr));
  gap: 0.25rem 1rem;
  label { display: flex; align-items: center; gap: 0.6rem; min-height: var(--target); font-weight: 600; cursor: pointer; }
  input { flex: none; width: 1.4rem; height: 1.4rem; accent-color: var(--accent); }
  label span { min-width: 0; overflow-wrap: anywhere; }
  small { color: var(--ink-soft); font-weight: 400; }
`;

/** Which engines take part, and why one cannot. */
function EngineChoice({ together, sharing }: { together: Together; sharing: readonly JobView[] }) {
  const { asked, isIn, setIn } = together;
  return (
    <Engines aria-label="Engines that use workshop stock">
      {sharing.map(({ id, document }) => {
        const out = asked?.leftOut.find(({ job }) => job === id);
        return (
          <li key={id}>
            <label>
              <input type="checkbox" checked={isIn(id)} onChange={(event) => setIn(id, event.target.checked)} />
              <span>
                {document.name} <small>{out ? LEFT_OUT[out.reason] : document.choice ? 'has a selection' : ''}</small>
              </span>
            </label>
          </li>
        );
      })}
    </Engines>
  );
}

/** Plans several engines at once on the workshop's drawer, so that the halves go where they serve best. */
export function TogetherView() {
  useTitle('Several engines');
  const together = useTogether();
  const { lines, fault, sharing, isCutOff, asked, work, fitThem, goOn, cancel, accept, engines, reload } = together;
  const pieces = usePieceLines();
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Select for several engines</PanelTitle>
        <Link to="/drawer">Open workshop stock</Link>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      <Panel>
        <Quiet>Shares out stock these engines reserved; others keep theirs.</Quiet>
        {sharing === null || lines === null ? (
          <p aria-busy>Loading engines …</p>
        ) : sharing.length === 0 ? (
          <p>No engine uses workshop stock yet. Open an engine’s Stock stage and let it use a series.</p>
        ) : (
          <>
            <EngineChoice together={together} sharing={sharing} />
            {isCutOff && <Quiet>The {MOST_TOGETHER} engines last edited; older ones are not included.</Quiet>}
            <Row>
              {work.state === 'working' ? (
                <SteadyButton onPress={cancel}>Cancel</SteadyButton>
              ) : (
                <SteadyButton $kind="primary" isDisabled={!asked?.problem} onPress={() => fitThem()}>
                  {asked?.jobs.length === 1
                    ? 'Select for this engine'
                    : `Select for these ${asked?.jobs.length ?? 0} engines`}
                </SteadyButton>
              )}
            </Row>
          </>
        )}
      </Panel>
      {pieces && engines && <TogetherPieces engines={engines} shelf={pieces} onAccepted={reload} />}
      {work.state === 'working' && <TogetherProgress progress={work.progress} />}
      {work.state === 'cancelled' && <Notice>Search cancelled. Nothing was changed.</Notice>}
      {work.state === 'failed' && <Notice urgent>{work.detail}</Notice>}
      {work.state === 'accepted' && (
        <Panel role="status">
          <Check aria-hidden size={20} />{' '}
          {work.count === 1
            ? 'The selection of one engine is accepted'
            : `The selections of ${work.count} engines are accepted`}
          ; their shells are reserved. <Link to="/">To Engines</Link>
        </Panel>
      )}
      {work.state === 'done' && (
        <TogetherOutcome
          asked={work.asked}
          plan={work.plan}
          lines={lines ?? []}
          onAccept={() => accept(work.asked, work.plan)}
          onGoOn={goOn}
        />
      )}
    </>
  );
}
