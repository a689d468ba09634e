import {
  type DrawerHalf,
  type DrawerLine,
  drawerHalfSchema,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  isSameKind,
  nanometres,
  parseLength,
  shellLabel,
  type Unit,
  wallFinding,
  wallOverBall,
} from '@fettle/core';
import { ArrowDownToLine, ArrowUpFromLine, RotateCcw, Tag, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { useKeptText } from '../look/useKeptText.js';
import { LengthField, lengthText } from '../measure/LengthField.js';
import { moveDrawer } from '../saving/api.js';
import type { Drawer } from './useDrawer.js';

const Pairs = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.25rem 0.75rem;
  > .whole { grid-column: 1 / -1; }
`;

/** A reading may be off by this much before a wall is called wrong; common practice for a ball micrometer, shown where it is used. */
const BALL_UNCERTAINTY = nanometres(2000);

interface HalfPanelProps {
  readonly line: DrawerLine;
  readonly lines: readonly DrawerLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly current: Drawer['current'];
  readonly onClose: () => void;
}

type MoveKind = 'receive' | 'use' | 'return';

/** A text of a half, saved when it is left. */
function TextField({
  line,
  label,
  value,
  most,
  className = '',
  check,
  onCommit,
}: {
  line: string;
  label: string;
  value: string;
  most: number;
  className?: string;
  check?: (text: string) => string | null;
  onCommit: (text: string) => Promise<boolean>;
}) {
  const { text, setText, settled } = useKeptText(`drawer ${line} ${label}`, value);
  const fault = check?.(text.trim()) ?? null;
  return (
    <Field
      label={label}
      className={className}
      value={text}
      maxLength={most}
      onChange={setText}
      fault={fault}
      onBlur={() => {
        if (text.trim() === value || fault !== null) return;
        void onCommit(text.trim()).then((worked) => worked && settled(text.trim()));
      }}
    />
  );
}

function wholeFault(text: string): string | null {
  return text === '' || /^\d{1,4}$/u.test(text) ? null : 'A whole number.';
}

function priceFault(text: string): string | null {
  return text === '' || /^\d+([.,]\d+)?$/u.test(text) ? null : 'A number, or empty.';
}

/** One kind of half opened up: what comes and goes, what is known of it, and single halves with a wall of their own. */
export function HalfPanel({ line, lines, unit, by, act, current, onClose }: HalfPanelProps) {
  const { id, version, half } = line;
  const [count, setCount] = useState('1');
  const [asSet, setAsSet] = useState<'half' | 'set'>('half');
  const [note, setNote] = useState('');
  const [number, setNumber] = useState('');
  const [ball, setBall] = useKeptBall();
  const [over, setOver] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const label = `${shellLabel(half)}${half.number === undefined ? '' : ` no. ${half.number}`}`;
  const size = (value: DrawerHalf['wall']) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  const wanted = /^\d{1,4}$/u.test(count.trim()) ? Number(count) : 0;
  const otherSide = half.half === 'upper' ? 'lower' : 'upper';
  const mate =
    half.half === 'either' || half.number !== undefined
      ? undefined
      : lines.find((one) => isSameKind(one.half, { ...half, half: otherSide }));
  const change = (part: Partial<DrawerHalf>, kind: 'change' | 'count' = 'change') =>
    act(async () => {
      const now = current(id) ?? line;
      const changed = drawerHalfSchema.parse(JSON.parse(JSON.stringify({ ...now.half, ...part })));
      await moveDrawer({ by, kind, note: '', changes: [{ id, version: now.version, half: changed }] });
    });
  const move = (kind: MoveKind) => {
    const by_ = kind === 'use' ? -wanted : wanted;
    const moved = asSet === 'set' && mate ? [line, mate] : [line];
    const short = moved.find((one) => one.half.onHand + by_ < 0);
    if (short) {
      setTold(`Only ${short.half.onHand} of ${shellLabel(short.half)} are there.`);
      return;
    }
    setTold(null);
    void act(() =>
      moveDrawer({
        by,
        kind,
        note: note.trim(),
        changes: moved.map((one) => ({
          id: one.id,
          version: one.version,
          half: { ...one.half, onHand: one.half.onHand + by_ },
        })),
      }),
    ).then((worked) => worked && setNote(''));
  };
  const read = {
    ball: parseLength(ball, { unit, signed: 'sign' }),
    over: parseLength(over, { unit, signed: 'sign' }),
  };
  const wall = read.ball.ok && read.over.ok ? wallOverBall(read.over.nm, read.ball.nm) : null;
  const finding = wall === null ? null : wallFinding(half, wall, BALL_UNCERTAINTY);
  const findingText =
    finding && `Wall ${lengthText(finding.by, unit)} too ${finding.side} for ${half.grade}: wrong box or wrong half`;
  const numberIt = () => {
    if (wall === null || number.trim() === '') return;
    const { band: _, ...plain } = half;
    const single = drawerHalfSchema.parse({
      ...plain,
      number: number.trim(),
      wall,
      onHand: 1,
      least: 0,
      findings: findingText ?? '',
    });
    if (lines.some((one) => isSameKind(one.half, single))) {
      setTold(`There is a half no. ${number.trim()} of this kind already.`);
      return;
    }
    void act(() =>
      moveDrawer({
        by,
        kind: 'number',
        note: `${size(wall)} ${unit} over the ball`,
        changes: [
          { id, version, half: { ...half, onHand: half.onHand - 1 } },
          { id: newId(), version: 0, half: single },
        ],
      }),
    ).then((worked) => {
      if (!worked) return;
      setTold(`No. ${number.trim()} has a wall of its own now: ${lengthText(wall, unit)}.`);
      setNumber('');
      setOver('');
    });
  };
  return (
    <Panel aria-label={label}>
      <Row style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <PanelTitle style={{ overflowWrap: 'anywhere' }}>{label}</PanelTitle>
        <Button $kind="quiet" aria-label="Close the detail" onPress={onClose}>
          <X aria-hidden size={20} />
        </Button>
      </Row>
      <Quiet>
        Wall {lengthText(half.wall, unit)}
        {half.band && `, by its grade ${size(half.band.low)} to ${lengthText(half.band.high, unit)}`}
        {half.number !== undefined && ', its own, measured'}
      </Quiet>
      {half.findings !== '' && <Notice>{half.findings}</Notice>}
      {told && <p role="status">{told}</p>}
      <Pairs>
        <Field
          label="Halves or sets"
          figure
          inputMode="numeric"
          value={count}
          onChange={setCount}
          fault={wanted > 0 ? null : 'A whole number from 1.'}
        />
        {mate ? (
          <Choice
            label="They come and go as"
            value={asSet}
            options={[
              { value: 'half', label: `single ${half.half} halves` },
              { value: 'set', label: 'sets, with the other half' },
            ]}
            onChange={setAsSet}
          />
        ) : (
          <span />
        )}
        <Field className="whole" label="Note, as supplier or engine" value={note} maxLength={300} onChange={setNote} />
      </Pairs>
      <Row style={{ margin: '0.4rem 0' }}>
        <Button isDisabled={wanted === 0} onPress={() => move('receive')}>
          <ArrowDownToLine aria-hidden size={18} />
          Receive
        </Button>
        <Button isDisabled={wanted === 0} onPress={() => move('use')}>
          <ArrowUpFromLine aria-hidden size={18} />
          Use
        </Button>
        <Button isDisabled={wanted === 0} onPress={() => move('return')}>
          <RotateCcw aria-hidden size={18} />
          Return
        </Button>
      </Row>
      <Pairs>
        <TextField line={id} label="Bin" value={half.bin} most={40} onCommit={(bin) => change({ bin })} />
        <TextField
          line={id}
          label="Least free"
          value={half.least === 0 ? '' : String(half.least)}
          most={4}
          check={wholeFault}
          onCommit={(text) => change({ least: text === '' ? 0 : Number(text) })}
        />
        <TextField
          line={id}
          label="Price of one half"
          value={half.price === null ? '' : String(half.price)}
          most={12}
          check={priceFault}
          onCommit={(text) => change({ price: text === '' ? null : Number(text.replace(',', '.')) })}
        />
        <TextField
          line={id}
          label="Undersize, if any"
          value={half.undersize ?? ''}
          most={20}
          onCommit={(text) => change({ undersize: text === '' ? undefined : text })}
        />
        <TextField
          line={id}
          className="whole"
          label="Supplier, how to order it"
          value={half.supplier}
          most={120}
          onCommit={(supplier) => change({ supplier })}
        />
        <TextField
          line={id}
          className="whole"
          label="Found on receipt, as an oil hole half covered"
          value={half.findings}
          most={300}
          onCommit={(findings) => change({ findings })}
        />
        {half.number === undefined && (
          <div className="whole">
            <LengthField
              key={`${id} wall`}
              kept={`wall ${id}`}
              label={`Wall of ${label}, ${unit}`}
              unit={unit}
              value={half.wall}
              optional={false}
              check={(value) => (value > 0 ? null : 'A wall is above zero.')}
              onCommit={(value) => value !== null && void change({ wall: value, band: undefined })}
            />
          </div>
        )}
      </Pairs>
      {half.number === undefined && (
        <>
          <PanelTitle as="h3" style={{ fontSize: 'var(--size-body)', marginTop: '0.75rem' }}>
            Measure one and number it
          </PanelTitle>
          <Quiet>
            Over a ball in the crown; the ball is subtracted. A numbered half is chosen with its own wall instead of its
            grade's.
          </Quiet>
          <Pairs>
            <Field
              label={`Ball, ${unit}`}
              figure
              value={ball}
              onChange={setBall}
              fault={ball === '' || read.ball.ok ? null : read.ball.message}
            />
            <Field
              label={`Reading over the ball, ${unit}`}
              figure
              value={over}
              onChange={setOver}
              fault={over === '' || read.over.ok ? null : read.over.message}
            />
            <Field label="Its number" value={number} maxLength={20} onChange={setNumber} />
            <p style={{ alignSelf: 'center' }}>
              {wall === null ? (
                <Quiet as="span">wall = reading − ball</Quiet>
              ) : (
                <>
                  Wall <strong className="figure">{lengthText(wall, unit)}</strong>
                </>
              )}
            </p>
          </Pairs>
          {findingText && (
            <Notice>
              {findingText}, beyond {lengthText(BALL_UNCERTAINTY, unit)} of the reading.
            </Notice>
          )}
          <Button isDisabled={wall === null || number.trim() === '' || half.onHand < 1} onPress={numberIt}>
            <Tag aria-hidden size={18} />
            Number it
          </Button>
        </>
      )}
    </Panel>
  );
}

const BALL_KEY = 'fettle.ball';

/** The ball of this bench's micrometer: it stays in the spindle from half to half. */
function useKeptBall(): [string, (text: string) => void] {
  const [ball, show] = useState(() => localStorage.getItem(BALL_KEY) ?? '');
  return [
    ball,
    (text) => {
      show(text);
      localStorage.setItem(BALL_KEY, text);
    },
  ];
}
