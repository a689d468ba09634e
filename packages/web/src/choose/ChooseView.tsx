import {
  CLEARANCE_DECIMALS,
  codedStations,
  commonDecimals,
  type EffectiveSize,
  formatExactLength,
  formatLength,
  freeHalves,
  INSTRUMENT_DECIMALS,
  type JobStation,
  mainStations,
  type Nanometres,
  nanometres,
  pinnedRods,
  placedRods,
  rodCount,
  rodLabel,
  rodStations,
  stationCandidates,
  stationVerdict,
  type Unit,
} from '@fettle/core';
import { Columns3, Pin, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { useAppSelector } from '../app/store.js';
import { chanceText } from '../codes/chanceText.js';
import { paintOf } from '../codes/paintOf.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { GradeName } from '../look/GradeSwatch.js';
import { STATE_WORDS, StateShape } from '../look/StateMark.js';
import { NOBODY } from '../person/personSlice.js';
import { ClearanceGauge, gaugeScale } from '../shaft/ClearanceGauge.js';
import { GaugeAxis } from '../shaft/GaugeAxis.js';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import type { ShaftColumn, ShaftShow } from '../shaft/shaftColumns.js';
import { useDrawer } from '../workshop/useDrawer.js';
import { ComparePlans } from './ComparePlans.js';
import { DrawerLeft } from './DrawerLeft.js';
import { PlanBar } from './PlanBar.js';
import { RodMatching } from './RodMatching.js';
import { StationPanel } from './StationPanel.js';
import { useJobPlan } from './useJobPlan.js';
import { type Play, usePlay, wishesInWords } from './usePlay.js';

const GAUGE_HEIGHT = 152;
/** With more columns than this, mains and rods are first shown one family at a time. */
const MOST_COLUMNS = 10;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21.5rem;
  gap: 0.75rem;
  align-items: start;
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
`;

const VerdictButton = styled(AriaButton)`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.1rem;
  min-height: 48px;
  width: 100%;
  border: var(--rule) solid transparent;
  border-radius: var(--radius);
  background: transparent;
  color: var(--ink);
  font: inherit;
  font-size: var(--size-small);
  font-weight: 700;
  line-height: 1.1;
  cursor: pointer;
  &[data-hovered] { border-color: var(--line-strong); }
`;

const Big = styled.strong`
  font-size: clamp(0.9375rem, 20cqi, 1.3rem);
  line-height: 1.15;
`;

/** Fits seven figures into a narrow column. */
const Size = styled.span`
  font-size: clamp(0.75rem, 21cqi, 1rem);
`;

const Grade = styled.span`
  font-weight: 600;
  font-size: var(--size-small);
  line-height: 1.15;
  overflow-wrap: anywhere;
  small { display: block; font-family: var(--figures); font-weight: 400; font-size: 0.8125rem; color: var(--ink-soft); }
`;

/** A size as it was read, or the mark that stands for it while nothing is. */
function SizeOrMark({
  size,
  mark,
  text,
  unit,
}: {
  size: EffectiveSize | null;
  mark: string | null;
  text: (value: Nanometres | undefined) => string;
  unit: Unit;
}) {
  if (size?.count !== 0) return <Size className="figure">{text(size?.nominal)}</Size>;
  return (
    <Grade>
      mark {mark}
      <small>
        ±{formatLength(nanometres(Math.round((size.largest - size.smallest) / 2)), unit, CLEARANCE_DECIMALS[unit])}
      </small>
    </Grade>
  );
}

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

/** The choice: every station with what the pairs at hand would give, the best choice for all of them, and why. */
export function ChooseView() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const play = usePlay(job);
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { document, readings } = job;
  const { unit, layout, choice, withRods } = document;
  const [selected, setSelected] = useState<string | null>(null);
  const [wanted, setWanted] = useState<'best' | 'accepted'>('accepted');
  const [show, setShow] = useState<ShaftShow>(layout.mains + rodCount(layout) > MOST_COLUMNS ? 'rods' : 'both');
  const [isComparing, setComparing] = useState(false);
  const isSharing = Object.values(document.shells).some(({ line }) => line !== null);
  const { lines } = useDrawer(isSharing);
  const free = useMemo(
    () => lines && new Map(lines.map((line) => [line.id, freeHalves(line, job.id)])),
    [lines, job.id],
  );
  const plan = useJobPlan(document, readings, free);
  const showing = choice ? wanted : 'best';
  const halves = showing === 'accepted' ? (choice?.stations ?? {}) : plan.halves;

  const stations = useMemo(() => {
    const placed = {
      ...pinnedRods(document),
      ...placedRods(halves),
    };
    const all = [...mainStations(document, readings), ...rodStations(document, readings, placed)];
    return new Map(all.map((station) => [station.id, station]));
  }, [document, readings, halves]);
  const coded = useMemo(
    () => codedStations(document, { ...pinnedRods(document), ...placedRods(halves) }),
    [document, halves],
  );
  const candidates = useMemo(
    () => new Map([...stations].map(([id, station]) => [id, stationCandidates(document, station)])),
    [document, stations],
  );
  const verdicts = new Map(
    [...stations].map(([id, station]) => [id, stationVerdict(document, station, halves[id] ?? null)]),
  );
  const shownAs = withRods ? show : 'mains';
  const isShown = ({ family }: JobStation) => shownAs === 'both' || (family === 'main') === (shownAs === 'mains');
  const visible = [...stations.values()].filter(isShown);
  const scale = gaugeScale(
    visible,
    visible.map(({ id }) => verdicts.get(id)!.clearance),
    visible.flatMap(({ id }) => candidates.get(id)!),
    GAUGE_HEIGHT,
  );
  const sizes = visible.flatMap(({ bore, journal }) =>
    [bore, journal].flatMap((one) => (one && one.count > 0 ? [one.nominal] : [])),
  );
  const decimals = commonDecimals(sizes, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const size = (value: Nanometres | undefined) => (value === undefined ? '·' : formatLength(value, unit, decimals));

  const shown = visible.flatMap(({ id }) => verdicts.get(id)!.clearance?.nominal ?? []);
  const fine = commonDecimals(shown, unit, CLEARANCE_DECIMALS[unit], unit === 'mm' ? 4 : 5);

  const accept = () => {
    setWanted('accepted');
    change((old) => ({ ...old, choice: { at: new Date().toISOString(), by, stations: plan.halves } }));
  };
  // Whoever plays wants to see the new best choice, not the accepted one.
  const playing: Play = {
    ...play,
    wish: (...step) => {
      setWanted('best');
      play.wish(...step);
    },
    keepRod: (...step) => {
      setWanted('best');
      play.keepRod(...step);
    },
    setExtra: (...step) => {
      setWanted('best');
      play.setExtra(...step);
    },
  };

  const rows: ShaftRow[] = [
    ...(withRods
      ? [
          {
            key: 'station',
            label: 'Station',
            cell: ({ key }: ShaftColumn) => {
              const { rod, family } = stations.get(key)!;
              const wish = document.wishes[key];
              const isHeld = wish !== undefined || (rod !== null && document.rods[String(rod)]?.pin != null);
              return (
                <Grade>
                  {key}
                  {isHeld && <Pin aria-label="something is held here" size={14} />}
                  {family === 'rod' && <small>{rod === null ? 'no rod' : rodLabel(document, rod)}</small>}
                </Grade>
              );
            },
          },
        ]
      : []),
    {
      key: 'bore',
      label: `Bore, ${unit}`,
      cell: ({ key }) => (
        <SizeOrMark size={stations.get(key)!.bore} mark={stations.get(key)!.marks.bore} text={size} unit={unit} />
      ),
    },
    {
      key: 'journal',
      label: `Journal, ${unit}`,
      cell: ({ key }) => (
        <SizeOrMark size={stations.get(key)!.journal} mark={stations.get(key)!.marks.journal} text={size} unit={unit} />
      ),
    },
    {
      key: 'gauge',
      label: <GaugeAxis stations={visible} scale={scale} height={GAUGE_HEIGHT} unit={unit} />,
      cell: ({ key }) => (
        <ClearanceGauge
          station={stations.get(key)!}
          candidates={candidates.get(key)!}
          chosen={verdicts.get(key)!.clearance}
          state={verdicts.get(key)!.state}
          scale={scale}
          height={GAUGE_HEIGHT}
          unit={unit}
        />
      ),
    },
    ...(['upper', 'lower'] as const).map((side) => ({
      key: side,
      label: side === 'upper' ? 'Upper half' : 'Lower half',
      cell: ({ key }: ShaftColumn) => {
        const half = halves[key]?.[side];
        return (
          <Grade>
            {half ? (
              <GradeName
                name={document.shells[half.shell]?.grade ?? half.label}
                paint={paintOf(document, stations.get(key)!.family, document.shells[half.shell]?.grade ?? '')}
                size={13}
              />
            ) : (
              '·'
            )}
            {half && <small>{formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit])}</small>}
          </Grade>
        );
      },
    })),
    ...(coded.size > 0
      ? [
          {
            key: 'table',
            label: (
              <>
                By marks
                <small>the table says</small>
              </>
            ),
            cell: ({ key, family }: ShaftColumn) => {
              const grades = coded.get(key)?.grades;
              const names = grades ? [...new Set([grades.upper, grades.lower])] : [];
              return names.length === 0 ? (
                <span className="figure">·</span>
              ) : (
                <Grade>
                  {names.map((name) => (
                    <GradeName key={name} name={name} paint={paintOf(document, family, name)} size={13} />
                  ))}
                </Grade>
              );
            },
          },
        ]
      : []),
    {
      key: 'clearance',
      label: (
        <>
          Clearance
          <small>{unit} · off aim</small>
        </>
      ),
      cell: ({ key }) => {
        const { clearance } = verdicts.get(key)!;
        const { aim } = stations.get(key)!;
        if (!clearance) return <span className="figure">·</span>;
        const off = aim === null ? null : ((clearance.nominal - aim) as Nanometres);
        return (
          <>
            <Big className="figure" data-testid={`clearance-${key}`}>
              {formatLength(clearance.nominal, unit, fine)}
            </Big>
            {off !== null && (
              <Grade>
                <small>{formatLength(off, unit, fine, { plus: true })}</small>
              </Grade>
            )}
          </>
        );
      },
    },
    {
      key: 'verdict',
      label: 'Verdict',
      cell: ({ key }) => {
        const { state, inside } = verdicts.get(key)!;
        return (
          <VerdictButton aria-label={`${key}: ${STATE_WORDS[state]}. Open its detail`} onPress={() => setSelected(key)}>
            <StateShape state={state} />
            {STATE_WORDS[state]}
            {inside !== null && <span data-testid={`inside-${key}`}>{chanceText(inside)}</span>}
          </VerdictButton>
        );
      },
    },
  ];
  const open = selected === null ? undefined : stations.get(selected);
  const wishes = wishesInWords(document);
  return (
    <Columns>
      <div>
        <ShaftLine
          layout={layout}
          rows={rows}
          show={shownAs}
          drawingHeight={98}
          selected={selected}
          onSelect={setSelected}
        />
        <PlanBar
          document={document}
          plan={plan}
          play={playing}
          showing={showing}
          onShow={setWanted}
          onAccept={accept}
        />
        <Tools>
          {withRods && <Choice label="Show" value={show} options={SHOWS} onChange={setShow} />}
          <p>{wishes.length > 0 && <>Held: {wishes.join('; ')}.</>}</p>
          {wishes.length > 0 && <Button onPress={play.releaseAll}>Let everything go</Button>}
          <Button isDisabled={play.undo === null} onPress={() => play.undo?.()}>
            <Undo2 aria-hidden size={20} />
            Undo{play.lastStep ? `: ${play.lastStep}` : ''}
            {play.isPartial && ' (what was changed again since stays)'}
          </Button>
          {plan.asked.ok && (
            <Button aria-expanded={isComparing} onPress={() => setComparing(!isComparing)}>
              <Columns3 aria-hidden size={20} />
              {isComparing ? 'Close the comparison' : 'Compare plans'}
            </Button>
          )}
        </Tools>
        {isComparing && plan.asked.ok && <ComparePlans asked={plan.asked} unit={unit} name={document.name} />}
        {withRods && plan.asked.ok && plan.asked.rodNumbers.size > 0 && (
          <RodMatching
            document={document}
            asked={plan.asked}
            halves={halves}
            cost={plan.plan?.cost ?? null}
            play={playing}
          />
        )}
      </div>
      <div>
        {open ? (
          <StationPanel
            document={document}
            station={open}
            readings={readings}
            halves={halves[open.id] ?? null}
            verdict={verdicts.get(open.id)!}
            candidates={candidates.get(open.id)!}
            plan={plan}
            play={playing}
            onClose={() => setSelected(null)}
          />
        ) : (
          <DrawerLeft document={document} halves={halves} plan={plan.plan} asked={plan.asked} free={free} />
        )}
      </div>
    </Columns>
  );
}
