import {
  FAMILY_TABLE,
  lengthText,
  type Nanometres,
  roughText,
  STRIP_ENDS,
  STRIP_RANGES,
  STRIP_TELLS,
  type StripEnd,
  stripFor,
  stripRead,
  stripVerdict,
} from '@fettle/core';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { Tick } from '../ui/Tick.js';
import type { TrialWork } from './useTrial.js';

const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.4rem;
`;

/** Gauging strips are far thinner than this, 1 mm; common practice. */
const MOST_DIAMETER = 1_000_000;

const END_WORDS: Readonly<Record<StripEnd, string>> = { front: 'front end', rear: 'rear end' };

/** Which strip to take for what is expected, and why. */
function Advice({ work }: { readonly work: TrialWork }) {
  const { document, open } = work;
  const { unit } = document;
  const { shown } = useClearances(unit);
  const expected = open.verdict.clearance?.nominal ?? open.station.aim;
  if (expected === null)
    return <Quiet>Choose a strip whose range on the packet includes the expected clearance.</Quiet>;
  const kind = stripFor(expected);
  const range = STRIP_RANGES.find((one) => one.kind === kind);
  const what = open.verdict.clearance ? 'Expected' : 'Target';
  return (
    <Quiet>
      {what} {roughText(expected, shown)}:{' '}
      {range
        ? `a ${range.kind} strip, usually for ${roughText(range.low, shown)} to ${roughText(range.high, shown)}; the packet decides.`
        : 'no usual strip covers that.'}
    </Quiet>
  );
}

/** A gauging strip at the open station: how wide it was pressed, at one end or both, and what that says. */
export function StripPanel({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, open, strip, setStrip, dropStrip } = work;
  const { unit } = document;
  const { shown } = useClearances(unit);
  const { id } = open.station;
  const read = strip && stripRead(strip);
  const calculated = open.verdict.clearance?.nominal ?? null;
  const only = stripVerdict(document, open.station);
  const off = read && calculated !== null ? read.clearance - calculated : null;
  const diameter = strip?.diameter ?? work.lastDiameter;
  const positive = (value: number) => (value > 0 ? null : 'Above zero.');
  const wide = (value: number) => {
    if (diameter === null) return 'Give the strip’s diameter first.';
    return value < diameter ? 'Narrower than the strip itself: it was pressed wider. Read it again.' : null;
  };
  return (
    <Panel aria-label={`Gauging strip at ${id}`}>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Gauging strip</PanelTitle>
        {strip && (
          <Button $kind="quiet" onPress={dropStrip}>
            Remove
          </Button>
        )}
      </Row>
      <Advice work={work} />
      <Three>
        <LengthField
          key={`${id} diameter`}
          kept={{ of: job, part: `strip ${id}`, field: 'diameter' }}
          label={`Strip’s diameter, ${unit}`}
          unit={unit}
          value={diameter}
          check={(value) =>
            value > MOST_DIAMETER
              ? `No strip is ${lengthText(value, unit)} thick: a decimal slip? Enter the thickness on the packet.`
              : positive(value)
          }
          onCommit={(diameter: Nanometres | null) => diameter !== null && setStrip({ diameter })}
        />
        {STRIP_ENDS.map((end) => (
          <LengthField
            key={`${id} ${end}`}
            kept={{ of: job, part: `strip ${id}`, field: end }}
            label={`Width, ${END_WORDS[end]}, ${unit}`}
            unit={unit}
            value={strip?.widths[end]?.nm ?? null}
            check={wide}
            onCommit={(nm: Nanometres | null) => setStrip({ [end]: nm })}
          />
        ))}
      </Three>
      {FAMILY_TABLE[open.station.family].housingsMove && diameter !== null && (
        <Tick isSelected={strip?.ringsOff === true} onChange={(ringsOff) => setStrip({ ringsOff })}>
          No piston rings on: they drag the shaft round and smear the strip
        </Tick>
      )}
      {read && (
        <p style={{ marginTop: '0.4rem' }}>
          <strong className="figure">{roughText(read.clearance, shown)}</strong> by strip, ±{' '}
          <span className="figure">{lengthText(STRIP_TELLS, shown)}</span> at best
          {read.taper !== null &&
            read.taper !== 0 &&
            `; taper ${roughText(Math.abs(read.taper), shown)}, wider at the ${read.taper > 0 ? 'front' : 'rear'}`}
          .{' '}
          {off === null
            ? `Nothing else is known here: the sheet says “by strip only”.${only ? '' : ' Without limits it is not judged.'}`
            : Math.abs(off) <= STRIP_TELLS
              ? 'It agrees with the calculation.'
              : `${roughText(Math.abs(off), shown)} ${off > 0 ? 'over' : 'under'} calculated: shaft turned, or strip moved?`}
        </p>
      )}
      {only && (
        <Row>
          <StateMark state={only.state} /> by strip only
        </Row>
      )}
      <Quiet>
        Dry, the shaft not turned; cap off straight, read at the widest. A model: the card with the strip rules.
      </Quiet>
    </Panel>
  );
}
