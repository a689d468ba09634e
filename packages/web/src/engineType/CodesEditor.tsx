import {
  CLEARANCE_DECIMALS,
  clearanceLimitsOf,
  codesOfFamily,
  FAMILY_TABLE,
  type Family,
  FEATURE_TABLE,
  featureOf,
  formatLength,
  type Nanometres,
  usualThinnerHalf,
} from '@fettle/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { Field } from '../ui/Field.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { BandGrid } from './BandGrid.js';
import { TablePanel } from './TablePanel.js';
import { squareCells } from './tableBlock.js';
import type { FamilyText } from './typeText.js';
import { UndersizePanel } from './UndersizePanel.js';
import { useOpenType } from './useOpenType.js';

const Lists = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  align-items: stretch;
  > section { flex: 1 1 17rem; min-width: 0; overflow-x: auto; padding: 0.75rem; }
  > section:last-child { flex: 1.4 1 28rem; }
`;

/** Marks, grades, the selection table and undersizes of the mains or of the rods, checked as they are typed. */
export function CodesEditor({ family }: { readonly family: Family }) {
  const { text, change, faults, type } = useOpenType();
  const { unit } = text;
  const own = text[family];
  const set = (part: Partial<FamilyText>) => change((old) => ({ ...old, [family]: { ...old[family], ...part } }));
  const codes = useMemo(
    () => type && codesOfFamily(type[family], unit, clearanceLimitsOf(type.limits, family)),
    [type, family, unit],
  );
  // Cells belong to the lines of the marks: taking a line out takes its cells along.
  const withoutLine = (list: 'housing' | 'journal') => (at: number) => {
    const cells = squareCells({
      rows: own.housing.map(({ mark }) => mark),
      columns: own.journal.map(({ mark }) => mark),
      cells: own.cells,
    });
    set({
      [list]: own[list].filter((_, other) => other !== at),
      cells:
        list === 'housing'
          ? cells.filter((_, other) => other !== at)
          : cells.map((line) => line.filter((_, other) => other !== at)),
    });
  };
  // Most engines take the same halves at every main: only where one is named are grades asked which it is for.
  const hasPlaces =
    FAMILY_TABLE[family].isInLine &&
    (Object.values(text.places).some((place) => place.trim() !== '') ||
      own.grades.some(({ places = '' }) => places.trim() !== ''));
  const bands = (list: 'housing' | 'journal' | 'grades', title: string, what: string) => (
    <Panel>
      <BandGrid
        title={title}
        what={what}
        place={`${family}.${list}`}
        bands={own[list]}
        faults={faults}
        unit={unit}
        hasPaint={list === 'grades'}
        hasPlaces={list === 'grades' && hasPlaces}
        onChange={(next) => set({ [list]: next })}
        {...(list === 'grades' ? {} : { onRemove: withoutLine(list) })}
      />
    </Panel>
  );
  const limits = codes?.limits;
  const text3 = (value: number) => formatLength(value as Nanometres, unit, CLEARANCE_DECIMALS[unit]);
  const thinner = usualThinnerHalf(text.materials.block, text.materials.caps);
  const props = { family, text: own, unit, faults, codes, thinner, set };
  return (
    <>
      <Panel>
        <Row style={{ alignItems: 'end' }}>
          <Field
            label="Series of the shells, as the maker calls it"
            value={own.series}
            maxLength={60}
            onChange={(series) => set({ series })}
          />
          <Field
            label="Source of bands and table: book and page"
            value={own.tableSource}
            maxLength={200}
            onChange={(tableSource) => set({ tableSource })}
          />
          <Quiet>
            Oil clearance:{' '}
            {limits
              ? `${text3(limits.low)} to ${text3(limits.high)} ${unit}, from the sheet`
              : 'no limits on the sheet yet'}
          </Quiet>
        </Row>
      </Panel>
      <Lists>
        {bands('housing', FEATURE_TABLE[featureOf(family, 'housing')].stageName, 'Mark')}
        {bands('journal', FEATURE_TABLE[featureOf(family, 'journal')].stageName, 'Mark')}
        {bands('grades', 'Shell grades, walls', 'Grade')}
      </Lists>
      <TablePanel {...props} />
      <UndersizePanel {...props} />
    </>
  );
}
