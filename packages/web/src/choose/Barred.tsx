import { type BarredPair, CLEARANCE_DECIMALS, formatLength, type JobDocument, type JobStation } from '@fettle/core';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Quiet, Row } from '../ui/Panel.js';
import { usePairs } from './usePairs.js';
import type { Play } from './usePlay.js';

const WHY: Readonly<Record<BarredPair['why'], string>> = {
  series: 'shells of two series are not mixed',
  mixed: 'two walls in one station are not allowed',
  step: 'its wall step is larger than allowed',
  'thinner-side': 'its thinner shell would be on the other side',
};
/** Maximum pairs listed. */
const MOST = 3;

interface BarredProps {
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly play: Play;
}

/** Pairs that would do at a station and that the rules forbid: each can be allowed and held there. */
export function Barred({ document, station, play }: BarredProps) {
  const { shells } = document;
  const { shown: unit } = useClearances(document.unit);
  const pairs = usePairs(document, [station], station.id, (worker, key) => worker.barred(key, station, MOST));
  if (pairs === null || pairs.length === 0) return null;
  // Until the next answer is there, a half that was just taken away is told by its id.
  const name = (id: string) => (shells[id] ? `${shells[id].grade} (${shells[id].series})` : id);
  return (
    <section aria-label={`Not allowed at ${station.id}`}>
      <Quiet>
        <strong>In limits, but not allowed:</strong>
      </Quiet>
      {pairs.map(({ upper, lower, clearance, why, rules }) => (
        <Row key={`${upper} ${lower}`} style={{ padding: '0.25rem 0' }}>
          <span style={{ flex: '1 1 11rem', fontSize: 'var(--size-small)' }}>
            {name(upper)} over {name(lower)}:{' '}
            <span className="figure">{formatLength(clearance, unit, CLEARANCE_DECIMALS[unit])}</span>; {WHY[why]}.
          </span>
          <Button
            aria-label={`Allow it here: ${name(upper)} over ${name(lower)}`}
            onPress={() =>
              play.remedy(
                (old) => {
                  const wish = { ...play.wishAt(station.id), upper, lower };
                  return { ...old, rules: { ...old.rules, ...rules }, wishes: { ...old.wishes, [station.id]: wish } };
                },
                `${name(upper)} over ${name(lower)} allowed and locked at ${station.id}`,
              )
            }
          >
            Allow it here
          </Button>
        </Row>
      ))}
      <Quiet>Changes the rule, locks the pair, prints on the build sheet.</Quiet>
    </section>
  );
}
