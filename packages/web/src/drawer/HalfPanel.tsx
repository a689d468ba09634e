import {
  type DrawerHalf,
  type DrawerLine,
  drawerHalfSchema,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  shellLabel,
  type Unit,
} from '@fettle/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { HalfFacts } from './HalfFacts.js';
import { HalfMoves } from './HalfMoves.js';
import { moveDrawer } from './moveDrawer.js';
import { NumberOne } from './NumberOne.js';
import type { Drawer } from './useDrawer.js';

interface HalfPanelProps {
  readonly line: DrawerLine;
  readonly lines: readonly DrawerLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly current: Drawer['current'];
  readonly onClose: () => void;
}

/** One kind of half opened up: what comes and goes, what is known of it, and single halves with a wall of their own. */
export function HalfPanel({ line, lines, unit, by, act, current, onClose }: HalfPanelProps) {
  const { id, half } = line;
  const [told, setTold] = useState<string | null>(null);
  const label = `${shellLabel(half)}${half.number === undefined ? '' : ` no. ${half.number}`}`;
  const size = (value: DrawerHalf['wall']) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  const change = (part: Partial<DrawerHalf>) =>
    act(async () => {
      const now = current(id) ?? line;
      // What is taken away is left out, not kept as nothing.
      const changed = drawerHalfSchema.parse(JSON.parse(JSON.stringify({ ...now.half, ...part })));
      await moveDrawer({ by, kind: 'change', note: '', changes: [{ id, version: now.version, half: changed }] });
    });
  return (
    <OpenedPanel aria-label={label}>
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
      <HalfMoves line={line} lines={lines} by={by} act={act} onTold={setTold} />
      <HalfFacts id={id} half={half} label={label} unit={unit} change={change} />
      {half.number === undefined && (
        <NumberOne line={line} lines={lines} unit={unit} by={by} act={act} onTold={setTold} />
      )}
    </OpenedPanel>
  );
}
