import {
  bandSeen,
  countedAsSeen,
  countedByGrade,
  type JobShell,
  type KnownWall,
  shellLabel,
  workedOutText,
} from '@fettle/core';
import { Link } from 'react-router';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { api } from '../wire/api.js';

/** What is known of the walls of a shell that is known by its grade only; null where nothing is. */
function knownOf(shell: JobShell, walls: readonly KnownWall[]): KnownWall | null {
  const band = shell.seen?.was.band ?? shell.band;
  const own = walls.find(
    ({ family, series, grade, half, low, high }) =>
      family === shell.family &&
      series === shell.series &&
      grade === shell.grade &&
      half === shell.half &&
      low === band?.low &&
      high === band?.high,
  );
  return own && bandSeen(own) ? own : null;
}

/** Walls of this engine’s grades as the workshop has measured them: told, and counted with only where the fitter says so. */
export function WallsSeenPanel() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const by = useBy();
  const { data } = api.useKnownWallsQuery({});
  const { unit, shells } = job.document;
  const rows = Object.entries(shells).flatMap(([id, shell]) => {
    const known = knownOf(shell, data?.walls ?? []);
    return known ? [{ id, shell, known }] : [];
  });
  if (rows.length === 0) return null;
  const set = (make: (shell: JobShell, known: KnownWall) => JobShell | null) =>
    change((old) => {
      const made = rows.flatMap(({ id, known }) => {
        const shell = old.shells[id];
        const next = shell && make(shell, known);
        return next ? [[id, next] as const] : [];
      });
      return { ...old, shells: { ...old.shells, ...Object.fromEntries(made) } };
    }, 'walls measured here');
  const counted = rows.filter(({ shell }) => shell.seen).length;
  return (
    <Panel aria-label="Walls measured here">
      <PanelTitle>Walls measured here</PanelTitle>
      <p>
        {counted === 0
          ? `The workshop has measured walls of ${rows.length} of these grades.`
          : `${counted} of ${rows.length} grades use the wall measured here, not the nominal wall.`}
      </p>
      <Fold>
        <summary>By grade</summary>
        <WideTable>
          <Table aria-label="Walls measured here, by grade">
            <thead>
              <tr>
                <th>Grade</th>
                <th className="number">Nominal, {unit}</th>
                <th className="number">Measured, {unit}</th>
                <th className="number">Next shell ±</th>
                <th className="number">Engines</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ id, shell, known }) => {
                const band = bandSeen(known)!;
                return (
                  <tr key={id}>
                    <td>
                      {shell.series} {shellLabel(shell)}
                    </td>
                    <td className="number">{workedOutText(shell.seen?.was.wall ?? shell.wall, unit)}</td>
                    <td className="number">{workedOutText(known.mean, unit)}</td>
                    <td className="number">{workedOutText((band.high - band.low) / 2, unit)}</td>
                    <td className="number">{known.engines}</td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        </WideTable>
      </Fold>
      <Row style={{ marginTop: '0.4rem' }}>
        {counted < rows.length && (
          <Button
            onPress={() =>
              set((shell, known) => countedAsSeen(shell, known, unit, { by, at: new Date().toISOString() }))
            }
          >
            Use measured walls
          </Button>
        )}
        {counted > 0 && <Button onPress={() => set(countedByGrade)}>Use nominal walls</Button>}
        <Link to="/known/walls">Wall records</Link>
      </Row>
      <Quiet>
        A delivery may differ: measure a few of it first. The list of shells and the build sheet mark these walls.
      </Quiet>
    </Panel>
  );
}
