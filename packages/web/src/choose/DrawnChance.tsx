import {
  type AcceptedChoice,
  type ClearanceDraw,
  chanceText,
  clearanceDraw,
  type JobDocument,
  type JobStation,
  nanometres,
  roughText,
  type Simulated,
  spreadFigure,
} from '@fettle/core';
import { useEffect, useMemo, useState } from 'react';
import { FitSearcher } from '../fit/fitSearch.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Quiet } from '../ui/Panel.js';

const drawer = new FitSearcher();
/** Draws: they give a share to about 0.1 %, in well under a second. */
const DRAWS = 200_000;

interface DrawnChanceProps {
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly halves: AcceptedChoice['stations'][string] | null;
}

/** The predicted clearance by drawing, on request: a second way beside the one that is shown, worked out off the page's main thread. */
export function DrawnChance({ document, station, halves }: DrawnChanceProps) {
  const draw = useMemo(() => halves && clearanceDraw(document, station, halves), [document, station, halves]);
  const [answer, setAnswer] = useState<{ draw: ClearanceDraw; drawn: Simulated } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isDrawing, setDrawing] = useState(false);
  useEffect(() => () => drawer.end(), []);
  const { shown: unit } = useClearances(document.unit);
  if (!draw) return null;
  const ask = () => {
    setDrawing(true);
    setFault(null);
    drawer
      .ask((search) => search.drawn(draw, DRAWS, 1))
      .then((drawn) => setAnswer({ draw, drawn }))
      .catch((error: Error) => setFault(error.message))
      .finally(() => setDrawing(false));
  };
  // What was drawn for other figures is no answer to these.
  if (answer?.draw !== draw) {
    return (
      <>
        <Button $kind="quiet" isDisabled={isDrawing} onPress={ask}>
          {isDrawing ? 'Simulating …' : 'Check ± by simulation'}
        </Button>
        {fault !== null && <p role="alert">{fault}</p>}
      </>
    );
  }
  const { mean, u, inside } = answer.drawn;
  return (
    <Quiet role="status">
      Simulated {DRAWS.toLocaleString('en')} times from the uncertainty of each size:{' '}
      <span className="figure">
        {roughText(nanometres(Math.round(mean)), unit)} ± {spreadFigure(u, unit)}
      </span>
      , {inside === 1 ? 'every one' : chanceText(inside)} in limits.
    </Quiet>
  );
}
