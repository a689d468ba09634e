import { type DrawerLine, familiesOf, type JobShell, shellOfLine, withDrawn } from '@fettle/core';
import { Link } from 'react-router';
import { newId } from '../base/newId.js';
import type { Drawer } from '../drawer/useDrawer.js';
import { usePieceLines } from '../drawer/usePieceLines.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { tell } from '../wire/tell.js';

/** A number of shells, and of washers or shims if any. */
function Counted({ halves, pieces }: { halves: number; pieces: number }) {
  return (
    <>
      {(halves > 0 || pieces === 0) && (
        <>
          <strong>{halves}</strong> shells
        </>
      )}
      {halves > 0 && pieces > 0 && ' and '}
      {pieces > 0 && (
        <>
          <strong>{pieces}</strong> washers or shims
        </>
      )}
    </>
  );
}

/** What an engine draws from the workshop's drawer, and what it holds of it. */
export function WorkshopPanel({ job, drawer }: { readonly job: OpenJob; readonly drawer: Drawer }) {
  const change = useChangeDocument(job);
  const by = useBy();
  const { document } = job;
  const { lines, fault, act } = drawer;
  const pieces = usePieceLines(job.id);
  const drawn = new Set(Object.values(document.shells).map(({ line }) => line));
  const open = (lines ?? []).filter(({ id, half }) => !drawn.has(id) && familiesOf(document).includes(half.family));
  const series = [...new Set(open.map(({ half }) => half.series))];
  const draw = (chosen: readonly DrawerLine[]) =>
    change((old) => {
      const added = chosen.map(({ id, half }): [string, JobShell] => [newId(), shellOfLine(id, half)]);
      return { ...old, shells: withDrawn(old.shells, Object.fromEntries(added)) };
    });
  const reserved = (lines ?? [])
    .flatMap(({ reservations }) => reservations.filter((one) => one.job === job.id))
    .reduce((sum, { count }) => sum + count, 0);
  const used = (lines ?? []).reduce((sum, { fittedHere }) => sum + fittedHere, 0);
  const reservedPieces = (pieces ?? [])
    .flatMap(({ reservations }) => reservations.filter((one) => one.job === job.id))
    .reduce((sum, { count }) => sum + count, 0);
  const usedPieces = (pieces ?? []).reduce((sum, { fittedHere }) => sum + fittedHere, 0);
  return (
    <Panel aria-label="From workshop stock">
      <PanelTitle>From workshop stock</PanelTitle>
      {fault && <Notice urgent>{fault}</Notice>}
      {lines === null ? (
        <Quiet aria-busy>Loading workshop stock …</Quiet>
      ) : (
        <>
          <Quiet>
            Shells shared by all open engines. Accepting a selection reserves them for this engine.{' '}
            <Link to="/drawer">Open workshop stock</Link>
          </Quiet>
          {series.map((name) => {
            const chosen = open.filter(({ half }) => half.series === name);
            return (
              <Button key={name} onPress={() => draw(chosen)}>
                Use {name}, {chosen.length === 1 ? '1 kind' : `${chosen.length} kinds`}
              </Button>
            );
          })}
          {reserved + reservedPieces > 0 && (
            <Row>
              <p>
                <Counted halves={reserved} pieces={reservedPieces} /> are reserved for this engine.
              </p>
              <Button onPress={() => void act(() => tell('setFitted', { id: job.id, body: { by, fitted: true } }))}>
                Mark as fitted
              </Button>
            </Row>
          )}
          {used + usedPieces > 0 && (
            <Row>
              <p>
                <Counted halves={used} pieces={usedPieces} /> are fitted in this engine and have left stock.
              </p>
              <Button onPress={() => void act(() => tell('setFitted', { id: job.id, body: { by, fitted: false } }))}>
                Undo
              </Button>
            </Row>
          )}
        </>
      )}
    </Panel>
  );
}
