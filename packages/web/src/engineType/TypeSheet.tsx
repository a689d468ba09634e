import { LIMIT_KEYS, limitName } from '@fettle/core';
import { Download } from 'lucide-react';
import { LimitsTable } from '../limits/LimitsTable.js';
import { EMPTY_LIMIT } from '../limits/limitText.js';
import { saveAs } from '../saving/saveAs.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { mainName, PlacedLimits, placedKey } from './PlacedLimits.js';
import { limitFaultsAt } from './readType.js';
import { LayoutPanel, PlaceNames } from './TypeLayout.js';
import { RowsPanel, ThrustPanel, TorquePanel } from './TypePanels.js';
import { type OpenType, useOpenType } from './useOpenType.js';

function LimitsPanel({ open }: { open: OpenType }) {
  const { text, change, faults, type } = open;
  const { mains, thrustMain } = type?.layout ?? { mains: Number(text.mains) || 1, thrustMain: null };
  return (
    <Panel>
      <PanelTitle>Limits from the data sheet</PanelTitle>
      <Quiet>
        From the engine maker's current data, each with book and page; local rules and licensed practice come first.
        What is left empty is missing in every verdict.
      </Quiet>
      <LimitsTable
        rows={[
          ...LIMIT_KEYS.map((key) => ({
            key: key as string,
            name: limitName(key),
            text: text.limits[key],
            faults: limitFaultsAt(faults, `limits.${key}`),
          })),
          ...text.mainLimits.map(({ number, key, text: typed }) => ({
            key: placedKey(number, key),
            name: `${limitName(key)}, main ${number}`,
            note: `only at ${mainName(number, mains, thrustMain)}`,
            text: typed,
            faults: limitFaultsAt(faults, `mainLimits.${placedKey(number, key)}`),
          })),
        ]}
        unit={text.unit}
        onChange={(row, limit) =>
          change((old) =>
            LIMIT_KEYS.some((key) => key === row)
              ? { ...old, limits: { ...old.limits, [row]: limit } }
              : {
                  ...old,
                  mainLimits: old.mainLimits.map((one) =>
                    placedKey(one.number, one.key) === row ? { ...one, text: limit } : one,
                  ),
                },
          )
        }
      />
      <PlacedLimits
        mains={mains}
        thrustMain={thrustMain}
        keys={text.mainLimits.map(({ number, key }) => placedKey(number, key))}
        onAdd={(number, key) =>
          change((old) => ({ ...old, mainLimits: [...old.mainLimits, { number, key, text: EMPTY_LIMIT }] }))
        }
      />
      <PlaceNames open={open} mains={mains} thrustMain={thrustMain} />
    </Panel>
  );
}

/** What the type is, what its maker's book says, and how its marks are stamped. */
export function TypeSheet() {
  const open = useOpenType();
  const { type, faults } = open;
  const isWhole = type !== null && Object.keys(faults).length === 0;
  return (
    <TwoColumns>
      <div>
        <LimitsPanel open={open} />
        <ThrustPanel open={open} />
        <TorquePanel open={open} />
      </div>
      <div>
        <LayoutPanel open={open} />
        <RowsPanel open={open} />
        <Panel>
          <PanelTitle>File</PanelTitle>
          <Quiet>
            An open format, described in docs/formats: take it to another workshop, or store it with the book.
          </Quiet>
          <Row>
            <Button
              isDisabled={!isWhole}
              onPress={() => type && saveAs(`${type.name}.json`, 'application/json', JSON.stringify(type, null, 2))}
            >
              <Download aria-hidden size={18} />
              Save as JSON
            </Button>
          </Row>
        </Panel>
      </div>
    </TwoColumns>
  );
}
