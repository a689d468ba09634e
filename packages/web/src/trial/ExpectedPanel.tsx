import {
  type ExpectedOffset,
  expectedKey,
  FAMILY_TABLE,
  type Family,
  familiesOf,
  fastenersWords,
  isWithOtherFasteners,
  type JobDocument,
  lengthText,
  momentText,
  nanometres,
  type OffsetGroup,
  workedOutText,
} from '@fettle/core';
import { Link } from 'react-router';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { spreadText } from './TrialVerdict.js';
import type { TrialWork } from './useTrial.js';

/** What is known of other engines that could be taken over here: of this type, with series of this engine's shells, for its families. */
export function offeredGroups(document: JobDocument, groups: readonly OffsetGroup[]): OffsetGroup[] {
  const families = familiesOf(document);
  const series = new Set(Object.values(document.shells).map((shell) => expectedKey(shell.family, shell.series)));
  return groups.filter(
    (group) =>
      families.includes(group.family) &&
      series.has(expectedKey(group.family, group.series)) &&
      fastenersWords(document.fasteners[group.family]) === group.fasteners &&
      group.next !== null,
  );
}

/** An offset that was taken over: from how many engines, by whom, and that it can be dropped. */
function Taken({
  family,
  series,
  one,
  work,
}: {
  readonly family: Family;
  readonly series: string;
  readonly one: ExpectedOffset;
  readonly work: TrialWork;
}) {
  const { document, expect } = work;
  const { shown } = useClearances(document.unit);
  return (
    <Row style={{ justifyContent: 'space-between' }}>
      <p>
        <strong>
          {lengthText(one.offset, shown)} ± {spreadText(one.u, shown)}
        </strong>
        , {FAMILY_TABLE[family].words}, {series}: expected from {one.engines} engines, taken over by {one.by},{' '}
        {momentText(one.at, 'day')}
        {isWithOtherFasteners(document, family, one) && (
          <strong>. Not applied: it was found with other fasteners.</strong>
        )}
      </p>
      <Button aria-label={`Stop using the expected offset, ${series}`} onPress={() => expect(family, series, null)}>
        Stop using it
      </Button>
    </Row>
  );
}

/** What other engines let expect that assembly adds: shown, and used only where the fitter takes it over. */
export function ExpectedPanel({ work }: { readonly work: TrialWork }) {
  const { document, expect } = work;
  const { shown } = useClearances(document.unit);
  const type = document.sheet?.name ?? '';
  const { currentData: data } = api.useKnownOffsetsQuery({ type }, { skip: type === '' });
  const taken = Object.entries(document.expected).map(([key, one]) => {
    const at = key.indexOf(' ');
    return { key, family: key.slice(0, at) as Family, series: key.slice(at + 1), one };
  });
  const offered = offeredGroups(document, data?.groups ?? []).filter(
    ({ family, series }) => document.expected[expectedKey(family, series)] === undefined,
  );
  if (taken.length === 0 && offered.length === 0) return null;
  return (
    <Panel aria-label="Expected from other engines">
      <PanelTitle>Expected from other engines</PanelTitle>
      {taken.map(({ key, ...one }) => (
        <Taken key={key} {...one} work={work} />
      ))}
      {offered.map(({ family, series, mean, uNext, engines, samples, fasteners }) => (
        <Row key={`${family} ${series}`} style={{ justifyContent: 'space-between' }}>
          <p>
            {engines} engines of this type with {series} let expect{' '}
            <strong className="figure">{workedOutText(mean, shown, { plus: true })}</strong> ±{' '}
            <span className="figure">{spreadText(uNext, shown)}</span> at every {family}.
            {samples > 0 && <strong> {samples} of them are samples.</strong>}
          </p>
          <Button
            aria-label={`Use the offset expected for ${series}`}
            onPress={() =>
              expect(family, series, { offset: nanometres(Math.round(mean)), u: uNext, engines, type, fasteners })
            }
          >
            Use it
          </Button>
        </Row>
      ))}
      <Fold>
        <summary>What it means</summary>
        <Quiet>
          The mean over engines with these shells and fasteners; ± is what the next engine may be off it. It is added to
          every station without a trial, in the selection too, until a trial of this engine says better.{' '}
          <Link to={`/known/offsets?type=${encodeURIComponent(type)}`}>The engines behind it</Link>
        </Quiet>
      </Fold>
    </Panel>
  );
}
