import {
  CLEARANCE_DECIMALS,
  formatExactLength,
  formatLength,
  freeHalves,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobShell,
  nanometres,
  otherUnit,
  shellsInOrder,
} from '@fettle/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { paintOf } from '../codes/paintOf.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { GradeName } from '../look/GradeSwatch.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { LengthField, lengthText } from '../measure/LengthField.js';
import { useDrawer } from '../workshop/useDrawer.js';
import { CountField } from './CountField.js';
import { FamilyForm } from './FamilyForm.js';
import { HALF_OPTIONS } from './halfOptions.js';
import { NumberField } from './NumberField.js';
import { SheetPanel } from './SheetPanel.js';
import { WorkshopPanel } from './WorkshopPanel.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(20rem, 2fr);
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { display: flex; flex-direction: column; gap: 0.75rem; }
`;

const ShellRow = styled.tr`
  td { padding: 0.2rem 0.4rem; }
  td.echo { font-size: var(--size-small); color: var(--ink-soft); }
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 5.75rem; }
  td small { display: block; font-weight: 400; color: var(--ink-soft); }
`;

type Change = (change: (document: JobDocument) => JobDocument) => void;

/** Half the width of a band: how far a wall may be off its middle. */
function halfOf({ low, high }: NonNullable<JobShell['band']>) {
  return nanometres(Math.round((high - low) / 2));
}

interface ShellLineProps {
  readonly id: string;
  readonly shell: JobShell;
  readonly document: JobDocument;
  readonly change: Change;
  /** What this engine may take of it, where it is the workshop's; null while that is not known. */
  readonly free: number | null;
}

function ShellLine({ id, shell, document, change, free }: ShellLineProps) {
  const set = (part: Partial<JobShell>) =>
    change((old) => ({ ...old, shells: { ...old.shells, [id]: { ...shell, ...part } } }));
  const used = Object.values(document.choice?.stations ?? {})
    .flatMap(({ upper, lower }) => [upper.shell, lower.shell])
    .filter((other) => other === id).length;
  return (
    <ShellRow>
      <td className="name">
        <GradeName name={shell.grade} paint={paintOf(document, shell.family, shell.grade)} />
        {shell.undersize !== undefined && <small>{shell.undersize} under</small>}
      </td>
      <td className="name">
        {document.withRods && `${shell.family} `}
        {shell.half}
      </td>
      <td className="name">{shell.series}</td>
      <td style={{ width: '9.5rem' }}>
        {shell.line === null ? (
          <LengthField
            kept={`wall ${id}`}
            compact
            label={`Wall of ${shell.grade} ${shell.half}, ${document.unit}`}
            unit={document.unit}
            value={shell.wall}
            optional={false}
            check={(wall) => (wall > 0 ? null : 'A wall is above zero.')}
            // A wall that was measured is no band any more.
            onCommit={(wall) => wall !== null && set({ wall, band: undefined })}
          />
        ) : (
          <span className="figure">
            {formatExactLength(shell.wall, document.unit, INSTRUMENT_DECIMALS[document.unit])}
          </span>
        )}
      </td>
      <td className="figure echo">
        {formatLength(shell.wall, otherUnit(document.unit), document.unit === 'mm' ? 5 : 4)}
        {shell.band && (
          <small>
            ±{formatLength(halfOf(shell.band), document.unit, CLEARANCE_DECIMALS[document.unit])} {document.unit}
          </small>
        )}
      </td>
      <td style={{ width: '7rem' }}>
        {shell.line === null ? (
          <CountField
            id={`${id} stock`}
            label={`Stock of ${shell.grade} ${shell.half}`}
            value={shell.stock}
            most={9999}
            empty="any"
            onCommit={(stock) => set({ stock })}
          />
        ) : (
          <span title="in the workshop drawer, for this engine">{free === null ? '…' : `${free} free`}</span>
        )}
      </td>
      <td className="number">{used}</td>
      <td>
        <Button
          $kind="quiet"
          aria-label={`Take ${shell.grade} ${shell.half} out of the drawer`}
          onPress={() =>
            change((old) => {
              const { [id]: _, ...others } = old.shells;
              return { ...old, shells: others };
            })
          }
        >
          <Trash2 aria-hidden size={18} />
        </Button>
      </td>
    </ShellRow>
  );
}

function notNegative(value: number): string | null {
  return value >= 0 ? null : 'Zero or more.';
}

function RulesPanel({ document, change }: { document: JobDocument; change: Change }) {
  const { rules, unit } = document;
  const set = (part: Partial<JobDocument['rules']>) => change((old) => ({ ...old, rules: { ...old.rules, ...part } }));
  const yesNo = [
    { value: 'yes', label: 'Allowed' },
    { value: 'no', label: 'Not allowed' },
  ] as const;
  return (
    <Panel>
      <PanelTitle>Rules of the choice</PanelTitle>
      <Row style={{ alignItems: 'start', display: 'grid', gridTemplateColumns: '1fr 1fr', marginTop: '0.5rem' }}>
        <Choice
          label="Two walls in one main"
          value={rules.mixedHalves ? 'yes' : 'no'}
          options={yesNo}
          onChange={(value) => set({ mixedHalves: value === 'yes' })}
        />
        <Choice
          label="Two series in one main"
          value={rules.acrossSeries ? 'yes' : 'no'}
          options={yesNo}
          onChange={(value) => set({ acrossSeries: value === 'yes' })}
        />
        <Choice
          label="Thinner half goes"
          value={rules.thinnerHalf}
          options={[
            { value: 'either', label: 'either side' },
            { value: 'upper', label: 'block side' },
            { value: 'lower', label: 'cap side' },
          ]}
          onChange={(thinnerHalf) => set({ thinnerHalf })}
        />
        <LengthField
          kept="maxWallStep"
          label={`Wall step at most, ${unit}`}
          unit={unit}
          value={rules.maxWallStep}
          optional={false}
          check={notNegative}
          onCommit={(maxWallStep) => maxWallStep !== null && set({ maxWallStep })}
        />
        <LengthField
          kept="maxSpread"
          label={document.withRods ? `Mains: largest spread, ${unit}` : `Largest spread, ${unit}`}
          unit={unit}
          value={rules.maxSpread}
          check={notNegative}
          onCommit={(maxSpread) => set({ maxSpread })}
        />
        {document.withRods && (
          <LengthField
            kept="maxRodSpread"
            label={`Rods: largest spread, ${unit}`}
            unit={unit}
            value={rules.maxRodSpread}
            check={notNegative}
            onCommit={(maxRodSpread) => set({ maxRodSpread })}
          />
        )}
        <NumberField
          kept="tightWeight"
          label="A shortfall weighs, times"
          value={rules.tightWeight}
          most={1000}
          onCommit={(tightWeight) => set({ tightWeight })}
        />
        <NumberField
          kept="mixedPenalty"
          label="A mixed main costs, µm²"
          value={rules.mixedPenalty}
          most={1_000_000}
          onCommit={(mixedPenalty) => set({ mixedPenalty })}
        />
        <NumberField
          kept="closeFraction"
          label="Close to a limit, % of range"
          value={Math.round(rules.closeFraction * 1000) / 10}
          most={50}
          onCommit={(percent) => set({ closeFraction: percent / 100 })}
        />
      </Row>
      <Quiet>
        Cap side is the default for an aluminium block with iron or steel caps: the block opens more when hot. A
        shortfall below the aim weighs more than the same excess, for too tight seizes a bearing while too loose costs
        noise and flow. The spread is that of the deviations from the aim along the shaft; left empty it is not limited.
      </Quiet>
    </Panel>
  );
}

/** The halves on hand for this engine, and the rules by which they are paired. */
export function DrawerView() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document } = job;
  const drawer = useDrawer();
  const shells = shellsInOrder(document);
  const freeOf = (line: string | null) => {
    const found = drawer.lines?.find(({ id }) => id === line);
    return found ? freeHalves(found, job.id) : null;
  };
  const [isOpen, setOpen] = useState(shells.length === 0);
  const thinnest =
    shells.length > 0
      ? shells.reduce((least, { shell }) => (shell.wall < least ? shell.wall : least), shells[0]!.shell.wall)
      : null;
  return (
    <Columns>
      <Panel>
        <Row style={{ justifyContent: 'space-between' }}>
          <PanelTitle>Halves in the drawer</PanelTitle>
          <Button
            $kind={shells.length === 0 ? 'main' : 'plain'}
            onPress={() => setOpen(!isOpen)}
            aria-expanded={isOpen}
          >
            <Plus aria-hidden size={20} />
            Add halves
          </Button>
        </Row>
        {isOpen && (
          <FamilyForm
            id={job.id}
            unit={document.unit}
            withRods={document.withRods}
            isCounted={false}
            options={HALF_OPTIONS}
            onAdd={(added) => {
              change((old) => ({
                ...old,
                shells: { ...old.shells, ...Object.fromEntries(added.map((shell) => [newId(), shell])) },
              }));
              setOpen(false);
            }}
          />
        )}
        {shells.length === 0 ? (
          <Quiet>
            Nothing in the drawer. Add a graded family by its first wall, its step and its count, or a single half with
            a count of one.
          </Quiet>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Grade</th>
                <th>Half</th>
                <th>Series</th>
                <th>Wall, {document.unit}</th>
                <th>{document.unit === 'mm' ? 'inches' : 'mm'}</th>
                <th>Stock</th>
                <th className="number">Chosen</th>
                <th>
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shells.map(({ id, shell }) => (
                <ShellLine
                  key={id}
                  id={id}
                  shell={shell}
                  document={document}
                  change={change}
                  free={freeOf(shell.line)}
                />
              ))}
            </tbody>
          </Table>
        )}
        {thinnest !== null && (
          <Quiet>
            Walls are measured at the crown. Thinnest here:{' '}
            <span className="figure">{lengthText(thinnest, document.unit)}</span>. Stock left empty means as many as
            wanted.
          </Quiet>
        )}
      </Panel>
      <div>
        <SheetPanel job={job} />
        <WorkshopPanel job={job} drawer={drawer} />
        <RulesPanel document={document} change={change} />
      </div>
    </Columns>
  );
}
