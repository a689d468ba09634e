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
import { useState } from 'react';
import { DetailPanel } from '../ui/DetailPanel.js';
import { Notice } from '../ui/Notice.js';

import { Quiet } from '../ui/Panel.js';
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
    <DetailPanel label={label} onClose={onClose}>
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
    </DetailPanel>
  );
}
