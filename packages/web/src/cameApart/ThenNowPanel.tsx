import {
  type EarlierBuild,
  type Feature,
  lengthText,
  momentText,
  type PartThenNow,
  RUN_UNITS,
  type RunUnit,
  roughText,
  type ShaftColumn,
  WEAR_PER,
  wearRate,
  workedOutText,
  wornMost,
} from '@fettle/core';
import { Link } from 'react-router';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import { OptionalNumber } from '../typing/OptionalNumber.js';
import { Choice } from '../ui/Choice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import type { CameApartWork } from './useCameApart.js';

const RUN_WORDS: Readonly<Record<RunUnit, string>> = { h: 'hours', km: 'km', mi: 'miles' };

const ROLES: readonly { readonly label: string; readonly main: Feature; readonly rod: Feature }[] = [
  { label: 'Journal', main: 'mainJournal', rod: 'pin' },
  { label: 'Housing bore', main: 'mainBore', rod: 'bigEnd' },
];

/** One part then, now and by how much it has worn. */
function ThenNowCell({ one, unit }: { readonly one: PartThenNow; readonly unit: 'mm' | 'in' }) {
  if (one.now === null) return <small>{workedOutText(one.was, unit)}, then</small>;
  return (
    <span className="figure">
      <small>{workedOutText(one.was, unit)}</small>
      <span style={{ display: 'block' }}>{workedOutText(one.now, unit)}</span>
      {one.isMachined ? (
        <small>machined</small>
      ) : (
        <strong>
          {workedOutText(one.worn!, unit, { plus: true })}
          {!one.isWorn && <small> within ±</small>}
        </strong>
      )}
    </span>
  );
}

function rowsOf(parts: readonly PartThenNow[], unit: 'mm' | 'in'): ShaftRow[] {
  return ROLES.flatMap(({ label, main, rod }): ShaftRow[] => {
    const own = parts.filter(({ feature }) => feature === main || feature === rod);
    if (own.length === 0) return [];
    return [
      {
        key: label,
        label: (
          <>
            {label}
            <small>then, now, worn, {unit}</small>
          </>
        ),
        cell: ({ family, number }: ShaftColumn) => {
          const one = own.find((part) => part.feature === (family === 'main' ? main : rod) && part.number === number);
          return one ? <ThenNowCell one={one} unit={unit} /> : '·';
        },
      },
    ];
  });
}

/** What the engine ran since it was built, as it was said. */
function RunFields({ work, before }: { readonly work: CameApartWork; readonly before: EarlierBuild }) {
  const { job, setRun } = work;
  const kept = { of: job.id, part: 'before', field: 'run unit' };
  const [unit, setUnit, unitKept] = useKeptChoice<RunUnit>(kept, before.run?.unit ?? 'h', RUN_UNITS);
  const keep = (value: number | null, inUnit: RunUnit) => {
    setRun(value === null ? null : { value, unit: inUnit });
    unitKept(inUnit);
  };
  return (
    <Row style={{ alignItems: 'end' }}>
      <OptionalNumber
        kept={{ of: job.id, part: 'before', field: 'run' }}
        label="Run since"
        value={before.run?.value ?? null}
        most={10_000_000}
        onCommit={(value) => keep(value, unit)}
      />
      <Choice
        label="In"
        value={unit}
        options={RUN_UNITS.map((value) => ({ value, label: RUN_WORDS[value] }))}
        onChange={(value) => {
          setUnit(value);
          if (before.run) keep(before.run.value, value);
        }}
      />
    </Row>
  );
}

/** The build before: which it was, what the engine ran since, and what has worn most. */
export function BeforePanel({ work }: { readonly work: CameApartWork }) {
  const { document, parts } = work;
  const { before, unit } = document;
  if (before === null) return null;
  const most = (['journal', 'housing'] as const).flatMap((role) => wornMost(parts, role) ?? []);
  const isRead = parts.some(({ now }) => now !== null);
  return (
    <Panel aria-label="Earlier build">
      <PanelTitle>Earlier build</PanelTitle>
      <p>
        <Link to={`/engines/${before.job}/sheet`}>{before.name}</Link>
        {before.signed === null
          ? ', not signed'
          : `, build sheet ${before.signed.revision} signed ${momentText(before.signed.at)}`}
      </p>
      {before.endPlay !== null && <Quiet>End play then {lengthText(before.endPlay, unit)}.</Quiet>}
      <RunFields work={work} before={before} />
      {most.map((one) => (
        <p key={one.name + one.feature}>
          Most worn: <strong>{one.name}</strong>, {roughText(one.worn!, unit)} ± {roughText(one.known!, unit)}
          {before.run !== null &&
            `; ${roughText(wearRate(one.worn!, before.run), unit)} in ${WEAR_PER[before.run.unit].toLocaleString('en')} ${RUN_WORDS[before.run.unit]}`}
        </p>
      ))}
      {isRead && most.length === 0 && <Quiet>No wear beyond the measuring uncertainty.</Quiet>}
      {!isRead && <Quiet>Measure bores and journals to compare then and now.</Quiet>}
    </Panel>
  );
}

/** Every journal and bore then and now, along the shaft. */
export function ThenNowLine({ work }: { readonly work: CameApartWork }) {
  const { document, parts } = work;
  if (parts.length === 0) return null;
  return (
    <ShaftLine
      label="Then and now by station"
      layout={document.layout}
      rows={rowsOf(parts, document.unit)}
      show={document.withRods ? 'both' : 'mains'}
      drawingHeight={96}
    />
  );
}
