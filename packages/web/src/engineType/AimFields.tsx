import {
  AIM_WORDS,
  type AimRule,
  aimRuleSchema,
  CLEARANCE_DECIMALS,
  clearanceKey,
  ENGINE_USES,
  FAMILY_TABLE,
  formatExactLength,
  type JobDocument,
  limitAt,
  USE_WORDS,
} from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { useClearances } from '../person/useClearances.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { Pairs } from './Pairs.js';
import { PlaceField } from './PlaceField.js';

const AIMS = (Object.keys(AIM_WORDS) as AimRule['kind'][]).map((value) => ({ value, label: AIM_WORDS[value] }));

export const USES = [
  { value: 'unknown', label: 'Not given' },
  ...ENGINE_USES.map((value) => ({ value, label: USE_WORDS[value] })),
] as const;

type AimKey = 'aim' | 'rodAim';

/** An engine for hard use aimed at the middle: many fitters go to the loose side then, and one touch does. */
function HardUse({ document, change }: { readonly document: JobDocument; readonly change: ChangeDocument }) {
  const keys: readonly AimKey[] = document.withRods ? ['aim', 'rodAim'] : ['aim'];
  const middle = keys.filter((key) => document.rules[key].kind === 'middle');
  if (document.use !== 'hard' || middle.length === 0) return null;
  const loose = Object.fromEntries(middle.map((key) => [key, { kind: 'loose-side' }]));
  return (
    <div style={{ margin: '0.5rem 0' }}>
      <Notice
        actions={
          <Button onPress={() => change((old) => ({ ...old, rules: { ...old.rules, ...loose } }))}>
            Use the loose side
          </Button>
        }
      >
        For hard use many fitters choose the loose side of the limits: more oil, less heat. Others stay in the middle.
      </Notice>
    </div>
  );
}

export function AimFields({
  id: job,
  document,
  change,
}: {
  id: string;
  document: JobDocument;
  change: ChangeDocument;
}) {
  const { shown } = useClearances(document.unit);
  const { rules, unit, layout } = document;
  const setRules = (part: Partial<JobDocument['rules']>) =>
    change((old) => ({ ...old, rules: { ...old.rules, ...part } }));
  const keys: readonly { key: AimKey; label: string; figure: string }[] = document.withRods
    ? [
        { key: 'aim', label: 'Mains: target clearance', figure: 'Mains' },
        { key: 'rodAim', label: 'Rods: target clearance', figure: 'Rods' },
      ]
    : [{ key: 'aim', label: 'Target clearance', figure: 'Figure' }];
  return (
    <Panel>
      <PanelTitle>Target</PanelTitle>
      <Pairs>
        {keys.map(({ key, label, figure }) => {
          const aim = rules[key];
          return [
            <Choice
              key={key}
              label={label}
              value={aim.kind}
              options={AIMS}
              onChange={(kind) =>
                setRules({ [key]: aimRuleSchema.parse(kind === 'figure' ? { kind, clearance: 0 } : { kind }) })
              }
            />,
            aim.kind === 'figure' ? (
              <LengthField
                key={`${key} figure`}
                kept={{ of: job, part: key, field: 'figure' }}
                label={`${figure}, ${unit}`}
                unit={unit}
                value={aim.clearance}
                optional={false}
                onCommit={(clearance) => clearance !== null && setRules({ [key]: { kind: 'figure', clearance } })}
              />
            ) : (
              <span key={`${key} none`} />
            ),
          ];
        })}
      </Pairs>
      <HardUse document={document} change={change} />
      <Quiet>
        Below the shaft: additions to the target at single stations, such as a little more at the rear main; limits of
        single stations; and names of mains that take their own shells, such as rear or thrust.
      </Quiet>
      <ShaftLine
        label="Targets and limits of single stations"
        areNamesShown
        layout={layout}
        show={document.withRods ? 'both' : 'mains'}
        drawingHeight={76}
        rows={[
          {
            key: 'extra',
            label: `Added to target, ${unit}`,
            cell: ({ key: id }) => (
              <LengthField
                kept={{ of: job, part: id, field: 'extra' }}
                compact
                label={`${id} extra, ${unit}`}
                unit={unit}
                value={rules.extras[id] ?? null}
                onCommit={(extra) => {
                  const { [id]: _, ...others } = rules.extras;
                  setRules({ extras: extra === null ? others : { ...others, [id]: extra } });
                }}
              />
            ),
          },
          {
            key: 'place',
            label: (
              <>
                Position<small>with its own shells</small>
              </>
            ),
            cell: ({ family, number }) =>
              FAMILY_TABLE[family].isInLine ? (
                <PlaceField id={job} number={number} document={document} change={change} />
              ) : (
                <span>·</span>
              ),
          },
          {
            key: 'limits',
            label: (
              <>
                Clearance
                <small>limits, {shown}</small>
              </>
            ),
            cell: ({ family, number }) => {
              const limit = limitAt(document, clearanceKey(family), FAMILY_TABLE[family].isInLine ? number : null);
              const isOwn =
                FAMILY_TABLE[family].isInLine && document.mainLimits[String(number)]?.mainClearance !== undefined;
              if (!limit) return <span>·</span>;
              const ends = [limit.low, limit.high].map((end) =>
                formatExactLength(end, shown, CLEARANCE_DECIMALS[shown]),
              );
              return (
                <span className="figure" style={{ fontSize: '0.875rem', fontWeight: isOwn ? 700 : 400 }}>
                  {ends[0]}
                  <br />
                  {ends[1]}
                  {isOwn && <small style={{ display: 'block', fontFamily: 'var(--text)' }}>its own</small>}
                </span>
              );
            },
          },
        ]}
      />
    </Panel>
  );
}
