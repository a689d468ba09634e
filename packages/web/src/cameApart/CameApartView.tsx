import {
  BLANK_HALF,
  CAP_ARROWS,
  LOOKS,
  suggestedLooks,
  TORQUE_UNITS,
  type TorqueUnit,
  torqueUnitWord,
} from '@fettle/core';
import { SquareCheckBig } from 'lucide-react';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { useOpenJob } from '../job/JobPage.js';
import { OptionalNumber } from '../typing/OptionalNumber.js';
import { WordsField } from '../typing/WordsField.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { OldLength } from './OldLength.js';
import { OldShell } from './OldShell.js';
import { BeforePanel, ThenNowLine } from './ThenNowPanel.js';
import { type CameApartWork, useCameApart } from './useCameApart.js';

const Stations = styled(Row)`
  gap: 0.4rem;
  button { flex-direction: column; gap: 0; padding: 0.2rem 0.7rem; line-height: 1.2; min-width: 4.2rem; }
  button small { font-weight: 400; color: var(--ink-soft); }
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); border-width: 2px; }
`;

const Halves = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 19rem), 1fr));
  gap: 0.75rem 1.25rem;
`;

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: end;
  margin-bottom: 0.5rem;
`;

const ARROW_WORDS = { front: 'To the front', rear: 'To the rear', none: 'No arrow' } as const;

function StationBar({ work }: { readonly work: CameApartWork }) {
  return (
    <Stations role="group" aria-label="Stations as they came apart">
      {work.stations.map(({ id, isDescribed }) => (
        <Button
          key={id}
          aria-pressed={id === work.open}
          aria-label={`${id}: ${isDescribed ? 'described' : 'open'}`}
          onPress={() => work.show(id)}
        >
          {id}
          <small>{isDescribed ? <SquareCheckBig aria-hidden size={16} color="var(--inside)" /> : 'open'}</small>
        </Button>
      ))}
    </Stations>
  );
}

/** The cap of the open station: its arrow, its number, and how hard its bolts were. */
function CapFields({ work }: { readonly work: CameApartWork }) {
  const { job, open, found, set, document } = work;
  const kept = { of: job.id, part: `apart ${open}`, field: 'loosen unit' };
  const usual = document.unit === 'in' ? 'ft-lb' : 'Nm';
  const [unit, setUnit, unitKept] = useKeptChoice<TorqueUnit>(kept, found?.loosen?.unit ?? usual, TORQUE_UNITS);
  const keep = (value: number | null, inUnit: TorqueUnit) => {
    set({ loosen: value === null ? null : { value, unit: inUnit } });
    unitKept(inUnit);
  };
  return (
    <Fields>
      <Choice
        label="Cap arrow"
        value={found?.arrow ?? ''}
        options={[
          { value: '', label: 'not checked' },
          ...CAP_ARROWS.map((value) => ({ value, label: ARROW_WORDS[value] })),
        ]}
        onChange={(arrow) => set({ arrow: arrow === '' ? null : arrow })}
      />
      <WordsField
        job={job.id}
        part={`apart ${open}`}
        field="number"
        label="Cap number"
        value={found?.number ?? ''}
        most={20}
        onCommit={(number) => set({ number })}
      />
      <OptionalNumber
        kept={{ of: job.id, part: `apart ${open}`, field: 'loosen' }}
        label="Loosened at"
        value={found?.loosen?.value ?? null}
        most={10_000}
        onCommit={(value) => keep(value, unit)}
      />
      <Choice
        label="Read in"
        value={unit}
        options={TORQUE_UNITS.map((value) => ({ value, label: torqueUnitWord(value) }))}
        onChange={(value) => {
          setUnit(value);
          if (found?.loosen) keep(found.loosen.value, value);
        }}
      />
      <OldLength
        work={work}
        kept={{ part: `apart ${open}`, field: 'clearance' }}
        label="Old clearance"
        value={found?.clearance ?? null}
        onKeep={(clearance) => set({ clearance })}
      />
    </Fields>
  );
}

/** What the patterns of the open station suggest to look at. */
function Suggests({ work }: { readonly work: CameApartWork }) {
  const { found } = work;
  const looks = suggestedLooks([...(found?.upper.patterns ?? []), ...(found?.lower.patterns ?? [])]);
  if (looks.length === 0) return null;
  return (
    <>
      <p style={{ marginTop: '0.6rem' }}>
        <strong>Check before assembling {work.open}:</strong>
      </p>
      <ul style={{ paddingLeft: '1.2rem', listStyle: 'disc' }}>
        {looks.map((look) => (
          <li key={look}>{LOOKS[look]}</li>
        ))}
      </ul>
      <Quiet>Repeated as a check in final assembly.</Quiet>
    </>
  );
}

/** An engine as it came apart, station by station; and, where it was built here before, what has worn since. */
export function CameApartView() {
  const work = useCameApart(useOpenJob());
  const { job, document, stations, open, found, show, setWhole, setSerial } = work;
  const at = stations.findIndex(({ id }) => id === open);
  const next = stations[at + 1] ?? null;
  useShortcut('s', 'Next station', next ? () => show(next.id) : null);
  return (
    <>
      <ThenNowLine work={work} />
      <TwoColumns>
        <div>
          <StationBar work={work} />
          <Panel key={open} aria-label={`${open} as it came apart`}>
            <PanelTitle>{open} as it came apart</PanelTitle>
            <CapFields work={work} />
            <Halves>
              {(['upper', 'lower'] as const).map((side) => (
                <OldShell key={side} work={work} side={side} half={found?.[side] ?? BLANK_HALF} />
              ))}
            </Halves>
            <Suggests work={work} />
            {next && (
              <Row style={{ marginTop: '0.75rem' }}>
                <Button $kind="primary" onPress={() => show(next.id)}>
                  Next: {next.id}
                </Button>
              </Row>
            )}
          </Panel>
        </div>
        <div>
          <BeforePanel work={work} />
          <Panel aria-label="Whole engine">
            <PanelTitle>Whole engine</PanelTitle>
            <WordsField
              job={job.id}
              part="engine"
              field="serial"
              label="Serial number"
              value={document.serial}
              most={40}
              onCommit={setSerial}
            />
            <OldLength
              work={work}
              kept={{ part: 'apart', field: 'endPlay' }}
              label="End play before disassembly"
              value={document.cameApart.endPlay}
              onKeep={(endPlay) => setWhole({ endPlay })}
            />
            <WordsField
              job={job.id}
              part="apart"
              field="words"
              label="Condition"
              value={document.cameApart.words}
              most={500}
              onCommit={(words) => setWhole({ words })}
            />
            <Quiet>
              Mark each cap and shell before removal, and look before you clean. The causes are common practice; the
              engine maker’s book decides.
            </Quiet>
          </Panel>
        </div>
      </TwoColumns>
    </>
  );
}
