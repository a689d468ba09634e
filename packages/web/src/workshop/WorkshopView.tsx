import {
  type DrawerLine,
  drawerHalfSchema,
  formatExactLength,
  formatLength,
  freeHalves,
  halvesIn,
  INSTRUMENT_DECIMALS,
  otherUnit,
  type Unit,
} from '@fettle/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../app/store.js';
import { UNIT_OPTIONS } from '../bench/options.js';
import { FamilyForm } from '../drawer/FamilyForm.js';
import { HALF_OPTIONS } from '../drawer/halfOptions.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { useKeptText } from '../look/useKeptText.js';
import { NOBODY } from '../person/personSlice.js';
import { moveDrawer } from '../saving/api.js';
import { type Drawer, useDrawer } from './useDrawer.js';

const Line = styled.tr`
  td { padding: 0.2rem 0.4rem; }
  td.name { font-weight: 600; overflow-wrap: anywhere; }
  td.half { white-space: nowrap; }
  td.who { font-size: var(--size-small); color: var(--ink-soft); }
  td.none { color: var(--close); font-weight: 700; }
`;

function OnHandField({ line, by, act }: { line: DrawerLine; by: string; act: Drawer['act'] }) {
  const { id, version, half } = line;
  const { text, setText, settled } = useKeptText(`drawer ${id}`, String(half.onHand));
  const wanted = /^\d{1,5}$/u.test(text.trim()) ? Number(text) : null;
  return (
    <Field
      aria-label={`On hand of ${half.grade} ${half.half}`}
      label=""
      figure
      inputMode="numeric"
      value={text}
      onChange={setText}
      onBlur={() => {
        if (wanted === null || wanted === half.onHand) return;
        void act(() =>
          moveDrawer({ by, kind: 'count', note: '', changes: [{ id, version, half: { ...half, onHand: wanted } }] }),
        ).then((worked) => {
          if (worked) settled(text.trim());
        });
      }}
      fault={wanted === null ? 'A whole number.' : null}
    />
  );
}

/** The workshop's halves: what is on hand, free, reserved and used, and by which engine. */
export function WorkshopView() {
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { lines, fault, act } = useDrawer();
  const [unit, setUnit] = useState<Unit>('mm');
  const [isOpen, setOpen] = useState(false);
  const sorted = [...(lines ?? [])].sort(
    (a, b) =>
      a.half.series.localeCompare(b.half.series, 'en') ||
      a.half.family.localeCompare(b.half.family, 'en') ||
      b.half.half.localeCompare(a.half.half, 'en') ||
      a.half.wall - b.half.wall,
  );
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Workshop drawer</PanelTitle>
        <Row>
          <Link to="/together">Fit engines together</Link>
          <Choice label="Measured in" value={unit} options={UNIT_OPTIONS} onChange={setUnit} />
          <Button $kind="main" aria-expanded={isOpen} onPress={() => setOpen(!isOpen)}>
            <Plus aria-hidden size={20} />
            Add halves
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      <Panel>
        <Quiet>
          Shared by all engines on the benches. An engine that draws on a kind of half reserves what its accepted choice
          takes; what is fitted leaves the drawer.
        </Quiet>
        {isOpen && (
          <FamilyForm
            id="workshop"
            unit={unit}
            withRods
            isCounted
            options={HALF_OPTIONS}
            onAdd={(added) => {
              setOpen(false);
              const changes = added.map(({ stock, line: _, ...half }) => ({
                id: crypto.randomUUID(),
                version: 0,
                half: drawerHalfSchema.parse({ ...half, onHand: stock ?? 0 }),
              }));
              void act(() => moveDrawer({ by, kind: 'add', note: '', changes }));
            }}
          />
        )}
        {lines === null ? (
          <p aria-busy>Looking into the drawer …</p>
        ) : lines.length === 0 ? (
          <p>Nothing in it yet. Add a graded family by its first wall, its step and its count.</p>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Grade</th>
                <th>Half</th>
                <th>Series</th>
                <th className="number">Wall, {unit}</th>
                <th className="number">{otherUnit(unit) === 'mm' ? 'mm' : 'inches'}</th>
                <th>On hand</th>
                <th className="number">Reserved</th>
                <th className="number">Free</th>
                <th className="number">Used</th>
                <th>Held by</th>
                <th>
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sorted.map((line) => {
                const { id, version, half, reservations } = line;
                const free = freeHalves(line, null);
                return (
                  <Line key={id}>
                    <td className="name">{half.grade}</td>
                    <td className="name half">
                      {half.family} {half.half}
                    </td>
                    <td className="name">{half.series}</td>
                    <td className="number">{formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit])}</td>
                    <td className="number">{formatLength(half.wall, otherUnit(unit), unit === 'mm' ? 5 : 4)}</td>
                    <td style={{ width: '6rem' }}>
                      <OnHandField line={line} by={by} act={act} />
                    </td>
                    <td className="number">{halvesIn(line, 'reserved') || '·'}</td>
                    <td className={free === 0 ? 'number none' : 'number'}>{free === 0 ? 'none' : free}</td>
                    <td className="number">{halvesIn(line, 'used') || '·'}</td>
                    <td className="who">
                      {reservations
                        .map(({ name, count, state }) => `${name} ${count}${state === 'used' ? ' fitted' : ''}`)
                        .join(', ')}
                    </td>
                    <td>
                      <Button
                        $kind="quiet"
                        aria-label={`Take ${half.grade} ${half.half} out of the workshop drawer`}
                        onPress={() =>
                          void act(() =>
                            moveDrawer({ by, kind: 'remove', note: '', changes: [{ id, version, half: null }] }),
                          )
                        }
                      >
                        <Trash2 aria-hidden size={18} />
                      </Button>
                    </td>
                  </Line>
                );
              })}
            </tbody>
          </Table>
        )}
      </Panel>
    </>
  );
}
