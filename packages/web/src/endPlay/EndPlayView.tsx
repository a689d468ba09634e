import { FACES, type Face, nanometres, thrustFlanges } from '@fettle/core';
import { useOpenJob } from '../job/JobPage.js';
import { Button } from '../ui/Button.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { ChoosePieces } from './ChoosePieces.js';
import { DialReadings } from './DialReadings.js';
import { EndPlaySettings } from './EndPlaySettings.js';
import { placesOf } from './PieceRows.js';
import { NO_CHOICE_WORDS } from './pieceWords.js';
import { RingStack } from './RingStack.js';
import { ShelfAdvice } from './ShelfAdvice.js';
import { ThrustSection } from './ThrustSection.js';
import { type EndPlayWork, planLength, useEndPlay } from './useEndPlay.js';
import { WhatToDo } from './WhatToDo.js';

const TITLES = { washers: 'Thrust washers', flanged: 'Flanged shells', rings: 'Rings' } as const;

const CAUTIONS = {
  washers: 'Grooves face the shaft. Never dress a coated face.',
  flanged: 'The width over the flanges is what counts. Never dress a coated face.',
  rings: 'Verify with the stack in, at 0° and at 180°.',
} as const;

/** Goes to the pieces of a face, which stand in the table of those in hand. */
function toPieces(face: Face): void {
  const row = window.document.querySelector<HTMLElement>(`tr[data-place^='${face}'] button`);
  row?.focus();
  row?.scrollIntoView({ block: 'center' });
}

/** The thrust main cut open, or the stack at the end of the shaft: as it is, or as it will be with what was chosen. */
function Drawing({ work }: { work: EndPlayWork }) {
  const { document, endPlay, kind, now, before, inHand, asked } = work;
  const { unit, layout } = document;
  if (kind === 'rings') {
    const rings =
      endPlay.choice?.chosen.flatMap(({ thickness, count }) => Array.from({ length: count }, () => thickness)) ??
      (inHand && asked.ok
        ? placesOf(inHand).map(({ id }) =>
            planLength(asked.request.pieces.find((piece) => piece.id === id)!.thickness, document),
          )
        : []);
    return <RingStack unit={unit} gap={before?.mean ?? null} rings={rings} settle={endPlay.settle} />;
  }
  const thick = (face: 'front' | 'rear') => {
    const own = (endPlay.choice?.chosen ?? []).filter(({ place }) => place.startsWith(face));
    if (own.length > 0) return nanometres(Math.max(...own.map(({ thickness }) => thickness)));
    return endPlay.fitted[face];
  };
  const width = endPlay.fitted.width;
  return (
    <ThrustSection
      unit={unit}
      front={kind === 'flanged' ? null : thick('front')}
      rear={kind === 'flanged' ? null : thick('rear')}
      width={kind === 'flanged' ? width : null}
      gap={now?.mean ?? null}
      isFlanged={kind === 'flanged'}
      main={layout.thrustMain}
    />
  );
}

/** End play: read, judged, and brought to its aim. */
export function EndPlayView() {
  const job = useOpenJob();
  const work = useEndPlay(job);
  const { kind, asked, endPlay } = work;
  const flanges = thrustFlanges(job.document);
  return (
    <TwoColumns>
      <div>
        <Panel aria-label={kind === 'rings' ? 'The stack of rings' : 'The thrust main'}>
          <Drawing work={work} />
          {kind === 'washers' && !endPlay.choice && (
            // Their place is kept while it is not known yet which pieces there are.
            <Row style={{ justifyContent: 'center', visibility: work.inHand ? 'visible' : 'hidden' }}>
              {FACES.map((face) => (
                <Button key={face} $kind="quiet" onPress={() => toPieces(face)}>
                  Washers at the {face} face
                </Button>
              ))}
            </Row>
          )}
        </Panel>
        <DialReadings job={job.id} work={work} />
        <EndPlaySettings job={job.id} work={work} />
      </div>
      <div>
        <WhatToDo work={work} />
        <ChoosePieces
          work={work}
          choice={endPlay.choice}
          title={kind ? TITLES[kind] : 'Washers and shims'}
          missing={asked.ok ? null : NO_CHOICE_WORDS[asked.reason]}
          {...(kind ? { caution: CAUTIONS[kind] } : {})}
        />
        {flanges && (
          <Panel>
            <Quiet>
              {flanges.station} has flanged shells: select them under Select shells, for oil clearance and end play
              together.
            </Quiet>
          </Panel>
        )}
        {kind && <ShelfAdvice job={job.id} work={work} />}
      </div>
    </TwoColumns>
  );
}
