import { chanceText, type ExpectedReading, endPlayAsk, lengthText, type Nanometres, nanometres } from '@fettle/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useSame } from '../base/useSame.js';
import { resultOf } from '../fit/fitSearch.js';
import { useAsked } from '../fit/useAsked.js';
import { LengthField } from '../typing/LengthField.js';
import { useDraft } from '../typing/useDraft.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import type { EndPlayWork } from './useEndPlay.js';

const Thirds = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
`;

const TARGETS = [
  { value: '0.8', label: '80 %' },
  { value: '0.9', label: '90 %' },
  { value: '0.95', label: '95 %' },
  { value: '0.99', label: '99 %' },
] as const;

/** What was typed of what may be read; kept on this device. */
interface Expected {
  readonly low: Nanometres | null;
  readonly high: Nanometres | null;
}
const NOT_TYPED: Expected = { low: null, high: null };

/** What is expected to be read: between two figures that were typed, or about what was read. */
function expectedOf(work: EndPlayWork, low: Nanometres | null, high: Nanometres | null): ExpectedReading | null {
  if (low !== null && high !== null) return low <= high ? { kind: 'band', low, high } : null;
  if (low !== null || high !== null || !work.before) return null;
  return { kind: 'normal', mean: work.before.mean, uncertainty: work.before.uncertainty };
}

/** Which pieces should be on the shelf, so that the job does not stop for one: with its chance, before or after it was read. */
export function ShelfAdvice({ job, work }: { readonly job: string; readonly work: EndPlayWork }) {
  const { document, endPlay, kind, limit, pieces, prices } = work;
  const { unit } = document;
  const [draft, setDraft] = useDraft<Expected>(`${job}.shelf`);
  const { low, high } = draft ?? NOT_TYPED;
  const [target, setTarget] = useState<(typeof TARGETS)[number]['value']>('0.9');
  const what = kind === 'rings' ? 'Gap' : 'End play';
  const wanted = useSame(expectedOf(work, low, high));
  const about = useMemo(() => {
    if (wanted === null) return null;
    const middle = nanometres(Math.round(wanted.kind === 'band' ? (wanted.low + wanted.high) / 2 : wanted.mean));
    const asked = endPlayAsk(endPlay, kind, limit, unit, pieces, middle);
    if (!asked.ok) return null;
    const byName = [...asked.ids].flatMap(([name, id]) =>
      prices[id] === undefined ? [] : [[name, prices[id]] as const],
    );
    return { asked, wanted, target: Number(target), prices: Object.fromEntries(byName) };
  }, [wanted, target, endPlay, kind, limit, unit, pieces, prices]);
  const { result, fault } = useAsked(about, async (search) =>
    resultOf(await search.pieceOrder(about!.asked.request, about!.wanted, about!.target, about!.prices)),
  );
  return (
    <Panel aria-label="What to stock">
      <PanelTitle>What to stock</PanelTitle>
      <Quiet>
        {work.before
          ? 'Blank: from the readings and their uncertainty.'
          : 'Not measured yet? Enter the expected range.'}
      </Quiet>
      <Thirds>
        <LengthField
          kept={{ of: job, part: 'shelf', field: 'low' }}
          label={`${what} from, ${unit}`}
          unit={unit}
          value={low}
          onCommit={(value) => setDraft({ low: value, high })}
        />
        <LengthField
          kept={{ of: job, part: 'shelf', field: 'high' }}
          label={`to, ${unit}`}
          unit={unit}
          value={high}
          check={(value) => (low !== null && value < low ? 'Not below the other figure.' : null)}
          onCommit={(value) => setDraft({ low, high: value })}
        />
        <Choice label="Required chance" value={target} options={TARGETS} onChange={setTarget} />
      </Thirds>
      {fault && <Notice urgent>{fault}</Notice>}
      {result && about && (
        <>
          <p>
            With current stock the chance of being in limits is <strong>{chanceText(result.now)}</strong>.
          </p>
          {result.order.length > 0 && (
            <>
              <p>
                For <strong>{chanceText(result.chance)}</strong>, get:
              </p>
              <ul aria-label="To get">
                {result.order.map(({ id, count }) => (
                  <li key={id}>
                    <strong>{count}</strong> × {id},{' '}
                    <span className="figure">{lengthText(pieces[about.asked.ids.get(id)!]!.thickness, unit)}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          {!result.isReached && (
            <Notice>
              With unlimited stock of these kinds the chance is at most {chanceText(result.ceiling)}: other thicknesses
              are needed.
            </Notice>
          )}
        </>
      )}
    </Panel>
  );
}
