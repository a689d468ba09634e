import {
  derivedUndersize,
  FAMILY_TABLE,
  featureOf,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  parseLength,
} from '@fettle/core';
import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { LimitFields } from '../limits/LimitFields.js';
import { textOfLimit } from '../limits/limitText.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { BandGrid } from './BandGrid.js';
import type { FamilyProps } from './familyProps.js';
import { limitFaultsAt } from './readType.js';
import type { UndersizeText } from './typeText.js';
import { useOpenType } from './useOpenType.js';

const UndersizeBox = styled.div`
  overflow-x: auto;
  border-top: var(--rule) solid var(--line);
  padding-top: 0.5rem;
  margin-top: 0.5rem;
`;

/** What a journal may be ground to, and the grades that are made for it. */
export function UndersizePanel({ family, text, unit, faults, set }: FamilyProps) {
  const { id, type } = useOpenType();
  const { text: amount, setText: setAmount, settled } = useKeptText({ of: id, part: family, field: 'undersize' }, '');
  const standard = type?.limits[featureOf(family, 'journal')] ?? null;
  const parsed = parseLength(amount, { unit, signed: 'sign' });
  const change = (at: number, part: Partial<UndersizeText>) =>
    set({ undersizes: text.undersizes.map((one, other) => (other === at ? { ...one, ...part } : one)) });
  const add = () => {
    if (!parsed.ok || !type) return;
    const size = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
    const derived = standard && derivedUndersize(amount.trim(), parsed.nm, standard, type[family].grades);
    set({
      undersizes: [
        ...text.undersizes,
        {
          name: amount.trim(),
          amount: amount.trim(),
          journal: textOfLimit(derived?.journal ?? null, unit),
          grades: (derived?.grades ?? []).map(({ mark, low, high, paint }) => ({
            mark,
            low: size(low),
            high: size(high),
            paint: paint ?? '',
          })),
        },
      ],
    });
    settled('');
  };
  return (
    <Panel>
      <PanelTitle>Undersizes</PanelTitle>
      <Quiet>
        Shells for a reground journal. The figures offered are arithmetic (journal less the undersize, walls half of it
        thicker): correct them from the book before saving.
      </Quiet>
      {text.undersizes.map((one, at) => {
        const place = `${family}.undersizes.${at}`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a box is its place in the list
          <UndersizeBox key={at}>
            <Row style={{ alignItems: 'end' }}>
              <Field
                label="Undersize, such as 0.25"
                value={one.name}
                maxLength={20}
                onChange={(name) => change(at, { name })}
                fault={faults[`${place}.name`] ?? null}
              />
              <Field
                label={`Smaller by, ${unit}`}
                figure
                value={one.amount}
                onChange={(value) => change(at, { amount: value })}
                fault={faults[`${place}.amount`] ?? null}
              />
              <Button
                $kind="quiet"
                aria-label={`Remove undersize ${one.name}`}
                onPress={() => set({ undersizes: text.undersizes.filter((_, other) => other !== at) })}
              >
                <Trash2 aria-hidden size={18} />
              </Button>
            </Row>
            <LimitFields
              name={`${FAMILY_TABLE[family].heads.journal} ground to ${one.name} under`}
              unit={unit}
              text={one.journal}
              faults={limitFaultsAt(faults, `${place}.journal`)}
              onChange={(journal) => change(at, { journal })}
            />
            <BandGrid
              title={`Grades of ${one.name} under`}
              what="Grade"
              place={`${place}.grades`}
              bands={one.grades}
              faults={faults}
              unit={unit}
              hasPaint
              onChange={(grades) => change(at, { grades })}
            />
          </UndersizeBox>
        );
      })}
      <Row style={{ alignItems: 'end', marginTop: '0.5rem' }}>
        <Field
          label={`Another undersize, ${unit} on the diameter`}
          figure
          value={amount}
          onChange={setAmount}
          fault={amount.trim() === '' || parsed.ok ? null : parsed.message}
        />
        <Button isDisabled={!parsed.ok || parsed.nm <= 0} onPress={add}>
          <Plus aria-hidden size={18} />
          Add it
        </Button>
      </Row>
    </Panel>
  );
}
