import {
  type AcceptedChoice,
  type Candidate,
  CLEARANCE_DECIMALS,
  formatLength,
  type JobDocument,
  type JobFit,
  type JobStation,
  type Reading,
  rodCount,
  rodLabel,
  type StationVerdict,
} from '@fettle/core';
import { format } from 'date-fns';
import { Ban, Pin, PinOff, X } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { StateMark, StateShape } from '../look/StateMark.js';
import { FEATURE_WORDS, SLOT_WORDS } from '../measure/featureWords.js';
import { LengthField } from '../measure/LengthField.js';
import { resultOf } from './fitSearch.js';
import { StationFacts } from './StationFacts.js';
import { StationSum } from './StationSum.js';
import { useAsked } from './useAsked.js';
import type { JobPlan } from './useJobPlan.js';
import type { Play } from './usePlay.js';

const Scroll = styled.div`
  max-height: 15.5rem;
  overflow-y: auto;
  td { font-size: var(--size-small); padding: 0.3rem 0.25rem; line-height: 1.2; }
  th { padding: 0.25rem; }
  small { display: block; font-weight: 400; color: var(--ink-soft); }
  tr[aria-current='true'] td { background: var(--accent-soft); font-weight: 700; }
`;

const Acts = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  margin: 0.5rem 0;
  button { padding: 0 0.6rem; font-size: var(--size-small); }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(8rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
`;

const Readings = styled.ul`
  font-size: var(--size-small);
  color: var(--ink-soft);
`;

interface StationPanelProps {
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly readings: readonly Reading[];
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly candidates: readonly Candidate[];
  readonly plan: JobPlan;
  readonly play: Play;
  readonly onClose: () => void;
}

/** One station opened up: the sum as on paper, what stands behind each figure, and what the other pairs would give. */
export function StationPanel({
  document,
  station,
  readings,
  halves,
  verdict,
  candidates,
  plan,
  play,
  onClose,
}: StationPanelProps) {
  const { unit } = document;
  const isRod = station.family === 'rod';
  const own = readings.filter(({ feature, station: number, text }) => {
    if (text === '') return false;
    if (isRod)
      return (feature === 'pin' && number === station.number) || (feature === 'bigEnd' && number === station.rod);
    return (feature === 'mainBore' || feature === 'mainJournal') && number === station.number;
  });
  const { asked } = plan;
  const rodName = station.rod === null ? null : `R${station.rod}`;
  const { result: alternatives } = useAsked(
    asked.ok && plan.plan !== null && asked.request.stations.some(({ id }) => id === station.id)
      ? `${station.id} ${JSON.stringify(asked.request)}`
      : null,
    async (search) => resultOf(await search.alternatives((asked as JobFit & { ok: true }).request, station.id)),
  );
  const shellId = (name: string) => (asked.ok ? (asked.shellIds.get(name) ?? name) : name);
  /** What the whole would cost with a pair here, the rest adapted; null while it is not known, Infinity when nothing fits then. */
  const costWith = (upper: string, lower: string): number | null => {
    const found = alternatives?.filter(
      (one) => shellId(one.upper) === upper && shellId(one.lower) === lower && (!isRod || one.housing === rodName),
    );
    const known = found?.filter(({ isKnown }) => isKnown) ?? [];
    return known.length > 0 ? Math.min(...known.map(({ cost }) => cost ?? Number.POSITIVE_INFINITY)) : null;
  };
  const least = alternatives?.[0]?.cost ?? null;
  const nextBest = alternatives?.find(
    (one) =>
      one.cost !== null &&
      halves !== null &&
      (shellId(one.upper) !== halves.upper.shell ||
        shellId(one.lower) !== halves.lower.shell ||
        (isRod && one.housing !== rodName)),
  );
  const wish = play.wishAt(station.id);
  const isHeld = wish.upper !== null || wish.lower !== null;
  const keptRod = Object.entries(document.rods).find(([, rod]) => rod.pin === station.number)?.[0] ?? '';
  const label = (id: string) => document.shells[id]?.grade ?? id;
  const extraText = (cost: number | null) =>
    cost === null || least === null
      ? '·'
      : cost === Number.POSITIVE_INFINITY
        ? 'no fit'
        : `+${(cost - least).toFixed(1)}`;
  return (
    <Panel aria-label={isRod ? `Pin ${station.number}` : `Main ${station.number}`}>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>
          {station.id}
          {isRod && station.rod !== null && ` · ${rodLabel(document, station.rod)}`}
        </PanelTitle>
        <StateMark state={verdict.state} />
        <Button $kind="quiet" aria-label="Close the detail" onPress={onClose}>
          <X aria-hidden size={20} />
        </Button>
      </Row>
      <StationFacts document={document} station={station} readings={readings} verdict={verdict} />
      <StationSum station={station} halves={halves} verdict={verdict} unit={unit} />
      {nextBest && least !== null && (
        <Quiet>
          Next best here: {nextBest.housing.startsWith('R') && `${nextBest.housing} with `}
          {label(shellId(nextBest.upper))} over {label(shellId(nextBest.lower))}, which costs{' '}
          {nextBest.cost! - least < 0.05 ? (
            'no more in all.'
          ) : (
            <>
              <span className="figure">{(nextBest.cost! - least).toFixed(1)}</span> µm² more in all.
            </>
          )}
        </Quiet>
      )}
      <Acts>
        {halves && (
          <Button
            aria-label={isHeld ? 'Let go' : 'Hold these'}
            aria-pressed={isHeld}
            onPress={() =>
              play.wish(
                station.id,
                isHeld ? { upper: null, lower: null } : { upper: halves.upper.shell, lower: halves.lower.shell },
                isHeld ? `${station.id} let go` : `${station.id} held`,
              )
            }
          >
            {isHeld ? <PinOff aria-hidden size={18} /> : <Pin aria-hidden size={18} />}
            {isHeld ? 'Let go' : 'Hold'}
          </Button>
        )}
        <Button
          aria-pressed={wish.unmixed}
          onPress={() =>
            play.wish(
              station.id,
              { unmixed: !wish.unmixed },
              wish.unmixed ? `${station.id} may be mixed` : `${station.id} not mixed`,
            )
          }
        >
          {wish.unmixed ? 'Allow a mix' : 'No mix'}
        </Button>
        {halves &&
          [...new Set([halves.upper.shell, halves.lower.shell])].map((id) => (
            <Button
              key={id}
              aria-label={`Not ${label(id)} ${document.shells[id]?.half}`}
              onPress={() =>
                play.wish(
                  station.id,
                  { noShells: [...new Set([...wish.noShells, id])] },
                  `${label(id)} forbidden at ${station.id}`,
                )
              }
            >
              <Ban aria-hidden size={18} />
              Not this {document.shells[id]?.half === 'either' ? 'half' : document.shells[id]?.half}
            </Button>
          ))}
        {wish.noShells.length > 0 && (
          <Button onPress={() => play.wish(station.id, { noShells: [] }, `${station.id} allows all again`)}>
            Allow {wish.noShells.map(label).join(', ')} again
          </Button>
        )}
      </Acts>
      <Pair>
        {isRod && (
          <Choice
            label={`Rod kept on ${station.id}`}
            value={keptRod}
            options={[
              { value: '', label: 'whichever is best' },
              ...Array.from({ length: rodCount(document.layout) }, (_, at) => ({
                value: String(at + 1),
                label: rodLabel(document, at + 1),
              })),
            ]}
            onChange={(rod) =>
              rod === '' ? play.keepRod(Number(keptRod), null) : play.keepRod(Number(rod), station.number)
            }
          />
        )}
        <LengthField
          kept={`extra ${station.id}`}
          label={`Extra aim, ${unit}`}
          unit={unit}
          value={document.rules.extras[station.id] ?? null}
          onCommit={(extra) => play.setExtra(station.id, extra)}
        />
      </Pair>
      {candidates.length > 0 && (
        <Scroll tabIndex={0} role="region" aria-label={`What each pair would give at ${station.id}`}>
          <Table>
            <thead>
              <tr>
                <th>Upper</th>
                <th>Lower</th>
                <th className="number">
                  Gives <small>off aim</small>
                </th>
                <th className="number">In all</th>
                <th>
                  <span className="visually-hidden">Verdict</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {candidates.map((candidate) => (
                <tr
                  key={`${candidate.upper} ${candidate.lower}`}
                  aria-current={halves?.upper.shell === candidate.upper && halves.lower.shell === candidate.lower}
                >
                  <td>{label(candidate.upper)}</td>
                  <td>{label(candidate.lower)}</td>
                  <td className="number">
                    {formatLength(candidate.clearance.nominal, unit, CLEARANCE_DECIMALS[unit])}
                    {candidate.deviation !== null && (
                      <small>{formatLength(candidate.deviation, unit, CLEARANCE_DECIMALS[unit], { plus: true })}</small>
                    )}
                  </td>
                  <td className="number">{extraText(costWith(candidate.upper, candidate.lower))}</td>
                  <td title={candidate.verdict?.state}>
                    {candidate.verdict && <StateShape state={candidate.verdict.state} size={16} />}
                    <span className="visually-hidden">{candidate.verdict?.state ?? 'no limits'}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
      <details>
        <summary>{own.length} readings behind it</summary>
        <Readings>
          {own.map((reading) => (
            <li key={reading.id}>
              {FEATURE_WORDS[reading.feature]} {SLOT_WORDS[reading.slot].toLowerCase()}:{' '}
              <span className="figure">{reading.text}</span>, {reading.by},{' '}
              {format(new Date(reading.at), 'd MMM HH:mm')}
            </li>
          ))}
        </Readings>
      </details>
    </Panel>
  );
}
