import {
  FAMILIES,
  FAMILY_TABLE,
  type JobDocument,
  type KitAdvice,
  type KitStep,
  lengthText,
  type Unit,
} from '@fettle/core';
import { Download, PackagePlus } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { paintOf } from '../halves/paintOf.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { GradeName } from '../ui/GradeSwatch.js';
import { Notice } from '../ui/Notice.js';
import { Panel, Row } from '../ui/Panel.js';
import { percent } from './ChanceBar.js';
import { Steps } from './Steps.js';
import type { KitRow, Order } from './useOrder.js';

/** A step that changes the chance by less than this is not shown. */
const LEAST_SHOWN = 0.0005;

const Found = styled.p`
  font-size: var(--size-lead);
  line-height: 1.3;
  strong { font-size: 1.2em; }
`;

function kitColumns(gradeOf: (id: string) => ReactNode, unit: Unit): DataColumn<KitRow>[] {
  return [
    { key: 'grade', head: 'Grade', sortBy: ({ shell }) => shell.grade, cell: ({ id }) => gradeOf(id) },
    {
      key: 'half',
      head: 'Shell',
      sortBy: ({ shell }) => `${shell.family} ${shell.half}`,
      cell: ({ shell }) => `${shell.family} ${shell.half}`,
    },
    {
      key: 'wall',
      head: 'Wall',
      isFigure: true,
      sortBy: ({ shell }) => shell.wall,
      cell: ({ shell }) => lengthText(shell.wall, unit),
    },
    {
      key: 'shelf',
      head: 'Stock needed',
      isFigure: true,
      sortBy: ({ shelf }) => shelf,
      cell: ({ shelf }) => shelf,
    },
    {
      key: 'order',
      head: 'To order',
      isFigure: true,
      sortBy: ({ order }) => order,
      cell: ({ order }) => (order === 0 ? 'there' : order),
    },
  ];
}

interface KitPanelProps {
  readonly document: JobDocument;
  readonly name: string;
  readonly order: Order;
  readonly advice: KitAdvice;
}

/** The kit that was found: its chance, its halves, and what one more or one less would do. */
export function KitPanel({ document, name, order, advice }: KitPanelProps) {
  const { unit } = document;
  const { shells, rows, hasPrices, wanted, keepAsKit, csv, told } = order;
  const { target } = order.wishes;
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
        {what} of {gradeOf(one!)} for the {FAMILY_TABLE[shell?.family ?? FAMILIES[0]].words}
      </>
    );
  };
  return (
    <Panel aria-label="The kit">
      <Found>
        <strong>{percent(advice.chance.chance)}</strong> of engines can be fitted from this kit
        {hasPrices && advice.price > 0 && `, ordering for ${advice.price.toFixed(2)}`}.
      </Found>
      <p>
        In {advice.chance.engines.toLocaleString('en')} new simulated engines; the true chance is between{' '}
        {percent(advice.chance.low)} and {percent(advice.chance.high)} (95 % sure). With current stock{' '}
        {percent(advice.before.chance)}; with every grade on hand {percent(advice.ceiling.chance)}.
      </p>
      {!advice.isReached && (
        <Notice>
          {target} % cannot be reached with these grades, whatever the stock: some engines are out of limits with every
          pair. This kit covers all others.
        </Notice>
      )}
      <DataTable
        label="Shells of the kit"
        items={rows.filter(({ shelf }) => shelf > 0)}
        columns={kitColumns(gradeOf, unit)}
        keyOf={({ id }) => id}
      />
      <Row style={{ marginTop: '0.5rem' }}>
        <Button onPress={() => saveAs(`${name} order.csv`, CSV_TYPE, csv())}>
          <Download aria-hidden size={18} />
          Order as CSV
        </Button>
        <Button onPress={() => void keepAsKit()}>
          <PackagePlus aria-hidden size={18} />
          Save as kit
        </Button>
        {told && <span role="status">{told}</span>}
      </Row>
      <Steps
        title="Next step up"
        none="No addition gains 0.1 %."
        steps={advice.more.filter(({ by }) => by >= LEAST_SHOWN).slice(0, 5)}
        words={unitWords}
        target={wanted}
        hasPrices={hasPrices}
      />
      <Steps
        title="Cost of one missing"
        none="The kit is empty."
        steps={advice.less}
        words={unitWords}
        target={wanted}
        hasPrices={false}
      />
    </Panel>
  );
}
