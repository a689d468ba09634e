import {
  cutText,
  type JobDocument,
  type JobShell,
  type KitChance,
  type KitStep,
  kitQuestionOfJob,
  kitSchema,
  LIMIT_NAMES,
  type LimitKey,
  numberOfLength,
  type Reading,
} from '@fettle/core';
import { Download, PackagePlus, Search, Square } from 'lucide-react';
import Papa from 'papaparse';
import { type ReactNode, useState } from 'react';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { useAppSelector } from '../app/store.js';
import { paintOf } from '../codes/paintOf.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { GradeName } from '../look/GradeSwatch.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { LengthField, lengthText } from '../measure/LengthField.js';
import { NOBODY } from '../person/personSlice.js';
import { putKit } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { useDrawer } from '../workshop/useDrawer.js';
import { useKitAdvice } from './useKitAdvice.js';

const ENGINES = 10_000;
/** A step that changes the chance by less than this is not shown. */
const LEAST_SHOWN = 0.0005;

const Asked = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
  @media (max-width: 1080px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
  gap: 0.25rem 0.75rem;
  align-items: start;
  margin-top: 0.5rem;
  > button { margin-top: 1.5rem; }
`;

const Found = styled.p`
  font-size: var(--size-lead);
  line-height: 1.3;
  strong { font-size: 1.2em; }
`;

const Bar = styled.svg`
  display: block;
  width: 100%;
  min-width: 8rem;
  .all { fill: var(--sunken); }
  .share { fill: var(--accent); }
  .sure { stroke: var(--ink); stroke-width: 2; }
  .asked { stroke: var(--brass); stroke-width: 2; stroke-dasharray: 3 2; }
`;

const STAGES = {
  drawing: 'Drawing engines',
  trimming: 'Leaving out what is not needed',
  checking: 'Checking on engines drawn afresh',
} as const;

/** A share in per cent with one decimal, never 100 where an engine was missed. */
function percent(share: number): string {
  const text = (share * 100).toFixed(1);
  return share < 1 && text === '100.0' ? 'over 99.9 %' : `${text} %`;
}

/** A chance drawn: its share, the interval it lies in, and what was asked for. */
function ChanceBar({ chance, target }: { chance: KitChance; target: number }) {
  return (
    <Bar viewBox="0 0 100 12" height={14} preserveAspectRatio="none" aria-hidden>
      <rect className="all" width={100} height={12} />
      <rect className="share" width={chance.chance * 100} y={3} height={6} />
      <path
        className="sure"
        d={`M${chance.low * 100} 1v10M${chance.high * 100} 1v10`}
        vectorEffect="non-scaling-stroke"
      />
      <line className="asked" x1={target * 100} x2={target * 100} y1={0} y2={12} vectorEffect="non-scaling-stroke" />
    </Bar>
  );
}

interface OrderAdvisorProps {
  /** The engine, as far as it is known. */
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  /** What it is called: an engine, or any engine of a type. */
  readonly name: string;
}

/** Which halves should be on the shelf before the work begins, so that it does not stop for a missing grade. */
export function OrderAdvisor({ document, readings, name }: OrderAdvisorProps) {
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { lines } = useDrawer();
  const { unit, rules } = document;
  const [families, setFamilies] = useState<'main' | 'both'>(document.withRods ? 'both' : 'main');
  const [target, setTarget] = useState('95');
  const [isMixed, setMixed] = useState(rules.mixedHalves);
  const [alike, setAlike] = useState(rules.maxSpread);
  const [told, setTold] = useState<string | null>(null);
  const { advice, progress, fault, ask, stop } = useKitAdvice();
  const wanted = Number(target.replace(',', '.')) / 100;
  const isTarget = target.trim() !== '' && wanted > 0 && wanted <= 1;
  const spread = alike === null ? null : numberOfLength(alike, unit);
  const question = kitQuestionOfJob(document, readings, {
    families: families === 'both' ? ['main', 'rod'] : ['main'],
    rules: {
      mixedHalves: isMixed,
      acrossSeries: rules.acrossSeries,
      maxWallStep: numberOfLength(rules.maxWallStep, unit),
      thinnerHalf: rules.thinnerHalf,
      maxSpread: { main: spread, rod: spread },
    },
    engines: ENGINES,
    seed: 1,
    drawer: lines ?? [],
  });
  const missing = question.ok
    ? []
    : question.missing.map((one) =>
        one === 'mainGrades' || one === 'rodGrades'
          ? `grades of the ${one === 'mainGrades' ? 'mains' : 'rods'}`
          : LIMIT_NAMES[one as LimitKey].toLowerCase(),
      );
  const blocked = question.ok ? question.blocked : [];
  const shells = question.ok ? question.shells : new Map<string, JobShell>();
  const gradeOf = (id: string) => {
    const shell = shells.get(id);
    if (!shell) return id;
    return (
      <GradeName
        name={`${shell.grade}${shell.undersize === undefined ? '' : ` ${shell.undersize} under`}`}
        paint={paintOf(document, shell.family, shell.grade)}
      />
    );
  };
  /** What a unit is called: an upper with its lower is a set. */
  const unitWords = ({ shells: [one, other] }: Pick<KitStep, 'shells'>) => {
    const shell = shells.get(one!);
    const what = other === undefined ? `one ${shell?.half ?? ''}` : 'one set';
    return (
      <>
        {what} of {gradeOf(one!)} {shell?.family === 'rod' ? 'for the rods' : 'for the mains'}
      </>
    );
  };
  const rows = advice
    ? [...shells].map(([id, shell]) => ({
        id,
        shell,
        shelf: advice.shelf.find((one) => one.id === id)?.count ?? 0,
        order: advice.order.find((one) => one.id === id)?.count ?? 0,
      }))
    : [];
  const hasPrices = question.ok && question.question.shells.some(({ price }) => price > 0);
  const keepAsKit = async () => {
    const kit = kitSchema.parse({
      name: cutText(`${name}, ${target} %`, 80),
      note: `Chance ${percent(advice!.chance.chance)} of fitting`,
      halves: rows
        .filter(({ shelf }) => shelf > 0)
        .map(({ shell: { stock: _, line: __, ...half }, shelf }) => ({ ...half, count: shelf })),
    });
    try {
      await putKit(newId(), 0, by, kit);
      setTold(`“${kit.name}” is kept with the kits of the workshop drawer.`);
    } catch (error) {
      setTold(refusalInWords(error));
    }
  };
  const csv = () =>
    Papa.unparse(
      [
        ['Count', 'Half', 'Family', 'Side', `Wall, ${unit}`],
        ...rows
          .filter(({ order }) => order > 0)
          .map(({ id, shell, order }) => [
            String(order),
            id,
            shell.family,
            shell.half,
            String(numberOfLength(shell.wall, unit)),
          ]),
      ],
      { newline: '\r\n', escapeFormulae: true },
    );
  return (
    <>
      <Panel>
        <PanelTitle>What should be on the shelf</PanelTitle>
        <Quiet>
          Engines are drawn from all that {name} may be:{' '}
          {readings.some(({ nm }) => nm !== null) ? 'what was read counts as read, ' : ''}
          marks by their bands, the rest by all that the data sheet allows, evenly. Each is fitted by the exact search
          with walls in the middle of their grades.
        </Quiet>
        <Asked>
          <Choice
            label="Halves for"
            value={families}
            options={[
              { value: 'main', label: 'the mains' },
              { value: 'both', label: 'the mains and the rods' },
            ]}
            onChange={setFamilies}
          />
          <Field
            label="Chance of at least, %"
            figure
            inputMode="decimal"
            value={target}
            onChange={setTarget}
            fault={isTarget ? null : 'Above 0, up to 100.'}
          />
          <Choice
            label="Halves of two grades in a station"
            value={isMixed ? 'yes' : 'no'}
            options={[
              { value: 'yes', label: 'Allowed' },
              { value: 'no', label: 'Not allowed' },
            ]}
            onChange={(value) => setMixed(value === 'yes')}
          />
          <LengthField
            kept="alike"
            label={`Alike along the shaft within, ${unit}`}
            unit={unit}
            value={alike}
            check={(value) => (value >= 0 ? null : 'Zero or more.')}
            onCommit={setAlike}
          />
          {progress ? (
            <Button onPress={stop}>
              <Square aria-hidden size={18} />
              Stop
            </Button>
          ) : (
            <Button
              $kind="main"
              isDisabled={!question.ok || !isTarget || lines === null}
              onPress={() => {
                setTold(null);
                if (question.ok) ask(question.question, wanted);
              }}
            >
              <Search aria-hidden size={20} />
              Work it out
            </Button>
          )}
        </Asked>
        {(blocked.length > 0 || (!question.ok && missing.length === 0)) && (
          <Notice>
            {blocked.length > 0 ? `${blocked.join(', ')} left out` : 'Nothing is left to order for'}: a size outside the
            data sheet keeps every shell from {blocked.length === 1 ? 'it' : 'them'} until it is machined.
          </Notice>
        )}
        {missing.length > 0 && (
          <Notice>That needs more of the data sheet: {missing.join(', ')}. Nothing is assumed in their place.</Notice>
        )}
        {progress && (
          <p role="status">
            {STAGES[progress.stage]} … <progress max={1} value={progress.done} aria-label={STAGES[progress.stage]} />
          </p>
        )}
        {fault && <Notice urgent>It could not be worked out: {fault}</Notice>}
      </Panel>
      {advice && (
        <Panel aria-label="The kit">
          <Found>
            <strong>{percent(advice.chance.chance)}</strong> of engines can be fitted from this kit
            {hasPrices && advice.price > 0 && `, ordering for ${advice.price.toFixed(2)}`}.
          </Found>
          <p>
            On {advice.chance.engines.toLocaleString('en')} engines drawn afresh; the true chance lies between{' '}
            {percent(advice.chance.low)} and {percent(advice.chance.high)} (95 % sure). With what is on the shelf now it
            is {percent(advice.before.chance)}; with every grade at hand {percent(advice.ceiling.chance)}.
          </p>
          {!advice.isReached && (
            <Notice>
              {target} % cannot be reached with these grades, whatever is on the shelf: some engines come out beyond the
              limits with every pair. This kit covers all that can be.
            </Notice>
          )}
          <Table aria-label="Halves of the kit">
            <thead>
              <tr>
                <th>Grade</th>
                <th>Half</th>
                <th className="number">Wall</th>
                <th className="number">On the shelf should be</th>
                <th className="number">To order</th>
              </tr>
            </thead>
            <tbody>
              {rows
                .filter(({ shelf }) => shelf > 0)
                .map(({ id, shell, shelf, order }) => (
                  <tr key={id}>
                    <td>{gradeOf(id)}</td>
                    <td>
                      {shell.family} {shell.half}
                    </td>
                    <td className="number">{lengthText(shell.wall, unit)}</td>
                    <td className="number">{shelf}</td>
                    <td className="number">{order === 0 ? 'there' : order}</td>
                  </tr>
                ))}
            </tbody>
          </Table>
          <Row style={{ marginTop: '0.5rem' }}>
            <Button onPress={() => saveAs(`${name} order.csv`, CSV_TYPE, `${csv()}\r\n`)}>
              <Download aria-hidden size={18} />
              Order as CSV
            </Button>
            <Button onPress={() => void keepAsKit()}>
              <PackagePlus aria-hidden size={18} />
              Keep it as a kit
            </Button>
            {told && <span role="status">{told}</span>}
          </Row>
          <Steps
            title="The next step up"
            none="No unit more brings a tenth of a per cent."
            steps={advice.more.filter(({ by }) => by >= LEAST_SHOWN).slice(0, 5)}
            words={unitWords}
            target={wanted}
            hasPrices={hasPrices}
          />
          <Steps
            title="What one missing would cost"
            none="The kit is empty."
            steps={advice.less}
            words={unitWords}
            target={wanted}
            hasPrices={false}
          />
        </Panel>
      )}
    </>
  );
}

interface StepsProps {
  readonly title: string;
  readonly none: string;
  readonly steps: readonly KitStep[];
  readonly words: (step: KitStep) => ReactNode;
  readonly target: number;
  readonly hasPrices: boolean;
}

function Steps({ title, none, steps, words, target, hasPrices }: StepsProps) {
  return (
    <>
      <PanelTitle style={{ marginTop: '1rem' }}>{title}</PanelTitle>
      {steps.length === 0 ? (
        <Quiet>{none}</Quiet>
      ) : (
        <Table aria-label={title}>
          <thead>
            <tr>
              <th>{title === 'The next step up' ? 'With' : 'Without'}</th>
              {hasPrices && <th className="number">Price</th>}
              <th className="number">Chance</th>
              <th className="number">Change</th>
              <th style={{ width: '34%' }}>
                <span className="visually-hidden">Chance drawn, 0 to 100 per cent</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step) => (
              <tr key={step.shells.join()}>
                <td>{words(step)}</td>
                {hasPrices && <td className="number">{step.price > 0 ? step.price.toFixed(2) : '·'}</td>}
                <td className="number">{percent(step.chance.chance)}</td>
                <td className="number">
                  {step.by > 0 ? '+' : '−'}
                  {Math.abs(step.by * 100).toFixed(1)}
                </td>
                <td>
                  <ChanceBar chance={step.chance} target={target} />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}
