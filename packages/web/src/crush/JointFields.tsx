import { JOINT_SIDES, momentText, type Nanometres } from '@fettle/core';
import { addDays, format } from 'date-fns';
import styled from 'styled-components';
import { today } from '../base/today.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Quiet, Row, Table } from '../ui/Panel.js';
import { RECHECK_DAYS } from './CrushVerdict.js';
import type { CrushWork } from './useCrush.js';

const Sides = styled(Table)`
  th[scope='row'] { font-size: 1rem; color: var(--ink); vertical-align: middle; }
  td { padding: 0.2rem 0.4rem; }
`;

export function JointFields({ job, work }: { job: string; work: CrushWork }) {
  const { document, joint, station, place, set, setSide } = work;
  const kind = place?.kind;
  const { unit } = document;
  const field = (
    name: string,
    label: string,
    value: Nanometres | null,
    onCommit: (value: Nanometres | null) => void,
  ) => (
    <LengthField
      key={`${station} ${name}`}
      kept={{ of: job, part: `joint ${station}`, field: name }}
      compact
      label={`${label}, ${unit}`}
      unit={unit}
      value={value}
      check={(nm) => (nm < 0 ? 'Enter 0 or more.' : null)}
      onCommit={onCommit}
    />
  );
  const rows = [
    ...(kind === 'saddle'
      ? []
      : ([
          ['go', 'Feeler that goes in'],
          ['noGo', 'Next one, which does not'],
        ] as const)),
    ...(kind === 'split-line'
      ? ([
          ['otherGo', 'Other face of the shim: goes in'],
          ['otherNoGo', 'Other face: does not'],
        ] as const)
      : []),
    ...(kind === 'plain' ? [] : [['shim', 'Shim there now; 0 for none'] as const]),
  ];
  return (
    <>
      <Sides aria-label={`Joint ${station}`}>
        <thead>
          <tr>
            <th>{unit === 'mm' ? 'Millimetres' : 'Inches'}</th>
            <th>Left</th>
            <th>Right</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([key, label]) => (
            <tr key={key}>
              <th scope="row">{label}</th>
              {JOINT_SIDES.map((side) => (
                <td key={side}>
                  {field(
                    `${side} ${key}`,
                    `${station} ${side}: ${label.toLowerCase()}`,
                    joint[side][key] ?? null,
                    (value) => setSide(side, { [key]: value }),
                  )}
                </td>
              ))}
            </tr>
          ))}
          {kind === 'saddle' && (
            <tr>
              <th scope="row">Oil clearance, in the bolt direction</th>
              <td colSpan={2}>
                {field('clearance', `${station}: oil clearance`, joint.clearance, (clearance) => set({ clearance }))}
              </td>
            </tr>
          )}
        </tbody>
      </Sides>
      <Row style={{ marginTop: '0.5rem' }}>
        {joint.recheck === null ? (
          <Button onPress={() => set({ recheck: format(addDays(new Date(), RECHECK_DAYS), 'yyyy-MM-dd') })}>
            Remind to read it again in {RECHECK_DAYS} days
          </Button>
        ) : (
          <>
            <Quiet>
              To be read again on {momentText(`${joint.recheck}T12:00`, 'day')}
              {joint.recheck <= today() && ': that is now'}.
            </Quiet>
            <Button $kind="quiet" onPress={() => set({ recheck: null })}>
              Done
            </Button>
          </>
        )}
      </Row>
    </>
  );
}
