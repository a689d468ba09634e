import { type JobDocument, lockedInWords, planOffTarget, rodCount, type ShaftShow } from '@fettle/core';
import { Columns3 } from 'lucide-react';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { useQuery } from '../base/useQuery.js';
import { useOpenJob } from '../job/JobPage.js';
import { useClearances } from '../person/useClearances.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { ComparePlans } from './ComparePlans.js';
import { choosingRows } from './choosingRows.js';
import { DrawerLeft } from './DrawerLeft.js';
import { LockedOffNotice } from './LockedOffNotice.js';
import { PlanBar } from './PlanBar.js';
import { sameHalves } from './planWords.js';
import { RodMatching } from './RodMatching.js';
import { StationPanel } from './StationPanel.js';
import { UndoHere } from './UndoHere.js';
import { type Choosing, useChoosing } from './useChoosing.js';
import { useAtHand } from './usePairs.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21.5rem;
  gap: 0.75rem;
  align-items: start;
  @container stage (max-width: 1040px) { grid-template-columns: minmax(0, 1fr); }
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
`;

/** Maximum locks listed in words; more are shown at their stations only. */
const MOST_TOLD = 6;

const SHOWS: readonly { value: ShaftShow; label: string }[] = [
  { value: 'mains', label: 'Mains' },
  { value: 'rods', label: 'Rods' },
  { value: 'both', label: 'Mains and rods' },
];

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.5rem 0.75rem;
  > p { flex: 1 1 14rem; font-size: var(--size-small); align-self: center; }
`;

/** What is read aloud once a selection is found or accepted: one sentence, where the bar says all. */
function Said({ choosing, document }: { readonly choosing: Choosing; readonly document: JobDocument }) {
  const { plan, halves } = choosing.plan;
  const { choice, layout, withRods } = document;
  const isFound = plan?.status === 'optimal' || plan?.status === 'feasible';
  const isAccepted = isFound && choice !== null && sameHalves(choice.stations, halves);
  const ids = Object.keys(halves);
  const of = withRods ? layout.mains + rodCount(layout) : layout.mains;
  return (
    <output className="visually-hidden">
      {isAccepted
        ? 'Selection accepted.'
        : isFound
          ? `Best selection found for ${ids.length} of ${of} stations${plan.status === 'optimal' ? ', proven' : ''}.`
          : plan?.status === 'infeasible'
            ? 'No selection fits. The reasons and remedies follow.'
            : ''}
    </output>
  );
}

/** The choice: every station with what the pairs at hand would give, the best choice for all of them, and why. */
export function ChooseView() {
  const job = useOpenJob();
  const { document, readings } = job;
  const { layout, withRods } = document;
  const choosing = useChoosing(job);
  const { plan, play, showing, showWhich, halves, chosen, show, setShow, visible, open, setOpen, accept, free } =
    choosing;
  const [compared, setCompared] = useQuery('compare');
  const isComparing = compared !== null;
  const { readAgain } = choosing;
  const atHand = useAtHand(document, chosen.stations);
  const { shown: clearances, said } = useClearances(document.unit);
  const rows = choosingRows({ ...chosen, atHand, document, clearances, halves, visible, readAgain, onOpen: setOpen });
  const held = lockedInWords(document);
  const at = visible.findIndex(({ id }) => id === open?.id);
  const next = visible[(at + 1) % visible.length];
  useShortcut('s', 'Next station', next ? () => setOpen(next.id) : null);
  return (
    <Columns>
      <div>
        <Said choosing={choosing} document={document} />
        <PlanBar
          document={document}
          readings={readings}
          plan={plan}
          play={play}
          showing={showing}
          facts={choosing.facts}
          doubts={choosing.doubts}
          onShow={showWhich}
          onAccept={accept}
          onWithdraw={choosing.withdraw}
        />
        <LockedOffNotice document={document} stations={chosen.stations} halves={halves} free={free} play={play} />
        <ShaftLine
          label="Selection by station"
          layout={layout}
          rows={rows}
          show={show}
          drawingHeight={98}
          selected={open?.id ?? null}
          onSelect={setOpen}
        />
        <Tools>
          {withRods && <Choice label="Show" value={show} options={SHOWS} onChange={setShow} />}
          <UndoHere job={job} />
          <p>
            {held.length > MOST_TOLD
              ? `Locked: ${held.length} items, shown by station.`
              : held.length > 0 && (
                  <>Locked: {held.map(({ station, text }) => `${station} ${said(text)}`).join('; ')}.</>
                )}
          </p>
          {held.length > 0 && <Button onPress={play.releaseAll}>Unlock all</Button>}
          {plan.asked.ok && (
            <Button aria-expanded={isComparing} onPress={() => setCompared(isComparing ? null : 'plans')}>
              <Columns3 aria-hidden size={20} />
              {isComparing ? 'Close the comparison' : 'Compare selections'}
            </Button>
          )}
        </Tools>
        {isComparing && plan.asked.ok && <ComparePlans asked={plan.asked} document={document} onTake={choosing.take} />}
        {withRods && plan.asked.ok && plan.asked.rodNumbers.size > 0 && (
          <RodMatching
            document={document}
            asked={plan.asked}
            halves={halves}
            meanOff={(plan.plan && planOffTarget(plan.plan)?.mean) ?? null}
            play={play}
          />
        )}
      </div>
      <div>
        {open ? (
          <StationPanel
            key={open.id}
            job={job.id}
            document={document}
            station={open}
            readings={readings}
            halves={halves[open.id] ?? null}
            verdict={chosen.verdicts.get(open.id)!}
            plan={plan}
            play={play}
            onClose={() => setOpen(null)}
          />
        ) : (
          <DrawerLeft
            document={document}
            stations={chosen.stations}
            halves={halves}
            plan={plan.plan}
            asked={plan.asked}
            free={free}
          />
        )}
      </div>
    </Columns>
  );
}
