import { FEATURE_TABLE, FEATURES } from '@fettle/core';
import styled from 'styled-components';
import { JOINT_OPTIONS } from '../limits/options.js';
import { TorqueLines } from '../torque/TorqueLines.js';
import type { TorqueLineFaults } from '../torque/torqueLineText.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { END_OPTIONS, Sixths } from './TypeLayout.js';
import { FIGURE_KEYS, type FigureKey } from './typeText.js';
import type { OpenType } from './useOpenType.js';

const RowLine = styled.div`
  display: grid;
  grid-template-columns: 1.2fr 1fr 1.6fr;
  gap: 0.25rem 0.75rem;
  align-items: end;
  margin-top: 0.35rem;
`;

const FIGURES: Readonly<Record<FigureKey, string>> = {
  endPlayAim: 'Target end play',
  crushAim: 'Target crush',
  crushAimAluminium: 'Crush under aluminium caps',
  settle: 'A stack of rings settles',
};

/** End play and crush, beside their limits: what is aimed at, what settles, and where there are shims. */
export function ThrustPanel({ open }: { open: OpenType }) {
  const { text, change, faults } = open;
  return (
    <Panel>
      <PanelTitle>End play and crush</PanelTitle>
      <Quiet>Blank targets are mid-limits. Settling is what was seen on engines of this type.</Quiet>
      <Sixths>
        {FIGURE_KEYS.map((key) => (
          <Field
            key={key}
            label={`${FIGURES[key]}, ${text.unit}`}
            figure
            value={text.figures[key]}
            onChange={(value) => change((old) => ({ ...old, figures: { ...old.figures, [key]: value } }))}
            fault={faults[`figures.${key}`] ?? null}
          />
        ))}
        {(['joints', 'rodJoints'] as const).map((key) => (
          <div key={key} className="half">
            <Choice
              label={key === 'joints' ? 'Joints of the mains' : 'Joints of the big ends'}
              value={text[key] ?? 'none'}
              options={JOINT_OPTIONS}
              onChange={(kind) => change((old) => ({ ...old, [key]: kind === 'none' ? null : kind }))}
            />
          </div>
        ))}
      </Sixths>
    </Panel>
  );
}

export function TorquePanel({ open }: { open: OpenType }) {
  const { text, change, faults } = open;
  const own = (at: number): TorqueLineFaults =>
    Object.fromEntries(
      Object.entries(faults).flatMap(([place, message]) => {
        const [list, which, key] = place.split('.');
        return list === 'torque' && which === String(at) && key !== undefined ? [[key, message]] : [];
      }),
    );
  return (
    <Panel>
      <PanelTitle>Torque</PanelTitle>
      <Quiet>
        Where the fasteners sit and how they are tightened, as figures: passes are then ticked off at the engine. The
        maker's current figures decide.
      </Quiet>
      <TorqueLines
        lines={text.torque}
        faults={text.torque.map((_, at) => own(at))}
        unit={text.unit}
        onChange={(torque) => change((old) => ({ ...old, torque }))}
      />
    </Panel>
  );
}

export function RowsPanel({ open }: { open: OpenType }) {
  const { text, change } = open;
  return (
    <Panel>
      <PanelTitle>Stamped rows</PanelTitle>
      <Quiet>How marks are stamped: what a row starts with, and which end its first mark belongs to.</Quiet>
      {FEATURES.map((feature) => {
        const row = text.rows[feature];
        const set = (part: Partial<typeof row>) =>
          change((old) => ({ ...old, rows: { ...old.rows, [feature]: { ...row, ...part, isUsed: true } } }));
        const word = FEATURE_TABLE[feature].name;
        return (
          <RowLine key={feature}>
            <Choice
              label={`${word}: marks`}
              value={row.isUsed ? 'row' : 'none'}
              options={[
                { value: 'none', label: 'No row' },
                { value: 'row', label: FEATURE_TABLE[feature].marked === 'each' ? 'On each rod' : 'In a row' },
              ]}
              onChange={(value) =>
                change((old) => ({ ...old, rows: { ...old.rows, [feature]: { ...row, isUsed: value === 'row' } } }))
              }
            />
            <Field
              label={`${word}: row starts with`}
              value={row.prefix}
              maxLength={6}
              onChange={(prefix) => set({ prefix })}
            />
            <Choice
              label={`${word}: first mark belongs to`}
              value={row.first}
              options={END_OPTIONS}
              onChange={(first) => set({ first })}
            />
          </RowLine>
        );
      })}
    </Panel>
  );
}
