import { type DrawerPiece, drawerPieceSchema, lengthText, PIECE_TABLE, type PieceLine, type Unit } from '@fettle/core';
import { LengthField } from '../typing/LengthField.js';
import { DetailPanel } from '../ui/DetailPanel.js';
import { Notice } from '../ui/Notice.js';

import { Quiet } from '../ui/Panel.js';
import { tell } from '../wire/tell.js';
import { moveDrawer } from './moveDrawer.js';
import { Pairs } from './Pairs.js';
import { pieceName } from './pieceName.js';
import { ShelfFacts, TextField } from './ShelfFacts.js';
import type { Drawer } from './useDrawer.js';

interface PiecePanelProps {
  readonly line: PieceLine;
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly onClose: () => void;
}

/** A washer, flanged half or shim opened up: what is known of it beside how many there are. */
export function PiecePanel({ line, unit, by, act, onClose }: PiecePanelProps) {
  const { id, piece } = line;
  const label = pieceName(piece);
  const change = (part: Partial<DrawerPiece>) =>
    act(async () => {
      // Each on what the one before has left.
      const now = (await tell('listPieces', {})).find((one) => one.id === id) ?? line;
      // What is taken away is left out, not kept as nothing.
      const changed = drawerPieceSchema.parse(JSON.parse(JSON.stringify({ ...now.piece, ...part })));
      await moveDrawer({ by, kind: 'change', note: '', changes: [{ id, version: now.version, piece: changed }] });
    });
  const word = (field: 'number' | 'oversize' | 'coating', title: string, most: number) => (
    <TextField
      line={id}
      part="piece"
      field={field}
      label={title}
      value={piece[field] ?? ''}
      most={most}
      check={(text) =>
        field === 'number' && text !== '' && piece.onHand > 1 ? 'A numbered item counts as one; there are more.' : null
      }
      onCommit={(text) => change({ [field]: text === '' ? undefined : text })}
    />
  );
  return (
    <DetailPanel label={label} onClose={onClose}>
      <Quiet>
        {PIECE_TABLE[piece.kind].sizeName} {lengthText(piece.thickness, unit)}
        {piece.leaf !== undefined && `, leaves of ${lengthText(piece.leaf, unit)}`}
      </Quiet>
      {piece.findings !== '' && <Notice>{piece.findings}</Notice>}
      <Pairs>
        <ShelfFacts id={id} part="piece" item={piece} findingsLabel="Found on receipt" change={change} />
        {word('number', 'Number, if marked', 20)}
        {PIECE_TABLE[piece.kind].hasHalves && word('oversize', 'Oversize, if any', 20)}
        {PIECE_TABLE[piece.kind].hasHalves && word('coating', 'Coating, if any', 40)}
        <div className="whole">
          <LengthField
            key={`${id} thickness`}
            kept={{ of: id, part: 'piece', field: 'thickness' }}
            label={`${PIECE_TABLE[piece.kind].sizeName} of ${label}, ${unit}`}
            unit={unit}
            value={piece.thickness}
            optional={false}
            check={(value) =>
              value <= (piece.leaf ?? 0)
                ? piece.leaf === undefined
                  ? 'Enter a thickness above 0.'
                  : 'A whole shim must be thicker than one leaf.'
                : null
            }
            onCommit={(value) => value !== null && void change({ thickness: value })}
          />
        </div>
      </Pairs>
    </DetailPanel>
  );
}
