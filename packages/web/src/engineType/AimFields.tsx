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
  type Nanometres,
  type ShaftColumn,
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

interface AimFieldsProps {
  readonly id: string;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
}

/** The target of one family: a rule, or a clearance that is typed. */
function FamilyAim({ id, document, change, aimKey }: AimFieldsProps & { readonly aimKey: AimKey }) {
  const { rules, unit, withRods } = document;
  const aim = rules[aimKey];
  const family = !withRods ? null : aimKey === 'aim' ? 'Mains' : 'Rods';
  const set = (next: AimRule) => change((old) => ({ ...old, rules: { ...old.rules, [aimKey]: next } }));
  return (
    <>
      <Choice
        label={family ? `${family}: target clearance` : 'Target clearance'}
        value={aim.kind}
        options={AIMS}
        onChange={(kind) => set(aimRuleSchema.parse(kind === 'figure' ? { kind, clearance: 0 } : { kind }))}
      />
      {aim.kind === 'figure' ? (
        <LengthField
          kept={{ of: id, part: aimKey, field: 'figure' }}
          label={`${family ?? 'Figure'}, ${unit}`}
          unit={unit}
          value={aim.clearance}
          optional={false}
          onCommit={(clearance) => clearance !== null && set({ kind: 'figure', clearance })}
        />
      ) : (
        <span />
      )}
    </>
  );
}

/** The limits of the clearance at a station, bold where they are its own. */
function StationLimits({ document, station }: { readonly document: JobDocument; readonly station: ShaftColumn }) {
  const { shown } = useClearances(document.unit);
  const { family, number } = station;
  const { isInLine } = FAMILY_TABLE[family];
  const limit = limitAt(document, clearanceKey(family), isInLine ? number : null);
  if (!limit) return <span>·</span>;
  const isOwn = isInLine && document.mainLimits[String(number)]?.mainClearance !== undefined;
  const text = (end: Nanometres) => formatExactLength(end, shown, CLEARANCE_DECIMALS[shown]);
  return (
    <span className="figure" style={{ fontSize: '0.875rem', fontWeight: isOwn ? 700 : 400 }}>
      {text(limit.low)}
      <br />
      {text(limit.high)}
      {isOwn && <small style={{ display: 'block', fontFamily: 'var(--text)' }}>its own</small>}
    </span>
  );
}

/** What is typed of single stations: an addition to the target, and a name where a main takes its own shells. */
function SingleStations({ id: job, document, change }: AimFieldsProps) {
  const { shown } = useClearances(document.unit);
  const { rules, unit, layout } = document;
  const setExtra = (station: string, extra: Nanometres | null) =>
    change((old) => {
      const { [station]: _, ...others } = old.rules.extras;
      return { ...old, rules: { ...old.rules, extras: extra === null ? others : { ...others, [station]: extra } } };
    });
  return (
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
              onCommit={(extra) => setExtra(id, extra)}
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
          cell: (station) => <StationLimits document={document} station={station} />,
        },
      ]}
    />
  );
}

/** The target clearance of each family, and what is different at single stations. */
export function AimFields(props: AimFieldsProps) {
  const { document, change } = props;
  return (
    <Panel>
      <PanelTitle>Target</PanelTitle>
      <Pairs>
        <FamilyAim {...props} aimKey="aim" />
        {document.withRods && <FamilyAim {...props} aimKey="rodAim" />}
      </Pairs>
      <HardUse document={document} change={change} />
      <Quiet>
        Below the shaft: additions to the target at single stations, such as a little more at the rear main; limits of
        single stations; and names of mains that take their own shells, such as rear or thrust.
      </Quiet>
      <SingleStations {...props} />
    </Panel>
  );
}
