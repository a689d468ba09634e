import {
  AIM_WORDS,
  type AimRule,
  aimRuleSchema,
  CHECKED_LIMITS,
  CLEARANCE_DECIMALS,
  clearanceKey,
  ENGINE_USES,
  FAMILY_TABLE,
  familiesOf,
  formatExactLength,
  hasBanks,
  type JobDocument,
  jointPlaces,
  type Limit,
  type LimitKey,
  limitAt,
  limitName,
  limitsNeeded,
  PLACED_LIMITS,
  type PlacedLimit,
  partName,
  positionSchema,
  rodBank,
  rodCount,
  THRUST_PLACE,
  throwsText,
  USE_WORDS,
  withThrows,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { type ChangeDocument, type OpenJob, useChangeDocument } from '../job/useJob.js';
import { type LimitRow, LimitsTable } from '../limits/LimitsTable.js';
import { EMPTY_LIMIT, type LimitText, readLimit, textOfLimit } from '../limits/limitText.js';
import { JOINT_OPTIONS, MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { UnitMoved } from '../measure/UnitMoved.js';
import { useClearances } from '../person/useClearances.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { OwnFigures } from '../torque/OwnFigures.js';
import { useTorque } from '../torque/useTorque.js';
import { LengthField } from '../typing/LengthField.js';
import { useDrafts } from '../typing/useDrafts.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { OriginPanel } from './OriginPanel.js';
import { mainName, PlacedLimits, placedKey } from './PlacedLimits.js';

const Pairs = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > .whole { grid-column: 1 / -1; }
`;

const Extras = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 0.25rem 0.75rem;
`;

/** Limits that a verdict uses where they are given, and does without where they are not. */
const SHAPE_LIMITS: readonly LimitKey[] = CHECKED_LIMITS.filter((key) => key !== 'crush');

const UNSAVED_ROW = 'not saved yet: leave the row to save it';

/** All limits of the engine in one table: those that it needs first, then those of single mains. */
function LimitsPanel({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  const { unit, layout, mainLimits } = document;
  const { drafts, latest, put, drop } = useDrafts<LimitText>(`${id}.limits`);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set(Object.keys(drafts)));
  const [leftOver] = useState(left);
  const keys: readonly LimitKey[] = [
    ...limitsNeeded(document),
    ...SHAPE_LIMITS,
    ...(jointPlaces(document).some(({ kind }) => kind !== 'saddle') ? (['crush'] as const) : []),
  ];
  const stored = new Map<string, { name: string; note?: string; text: LimitText }>([
    ...keys.map((key) => [key, { name: limitName(key), text: textOfLimit(document.limits[key], unit) }] as const),
    ...Object.entries(mainLimits).flatMap(([number, own]) =>
      PLACED_LIMITS.filter((key) => own[key] !== undefined).map(
        (key) => [placedKey(number, key), placedRow(document, Number(number), key)] as const,
      ),
    ),
    ...Object.keys(drafts).flatMap((key) => {
      const placed = placedOf(key);
      return placed && mainLimits[placed.number]?.[placed.key] === undefined
        ? [[key, placedRow(document, Number(placed.number), placed.key)] as const]
        : [];
    }),
  ]);
  const rows = [...stored].map(([key, { text, ...row }]): LimitRow => {
    const draft = drafts[key];
    const faults = draft && left.has(key) ? readLimit(draft, unit).faults : {};
    const isUnsaved = draft !== undefined && leftOver.has(key) && Object.keys(faults).length === 0;
    const note = [row.note, isUnsaved ? UNSAVED_ROW : undefined].filter((one) => one !== undefined).join('; ');
    return { key, ...row, text: draft ?? text, faults, ...(note === '' ? {} : { note }) };
  });
  const leave = (key: string) => {
    const draft = latest()[key];
    if (draft === undefined) return;
    // Who types a column at a time has half of each row until the next: that is no fault yet.
    if (draft.low.trim() !== '' && draft.high.trim() !== '') setLeft(new Set([...left, key]));
    const { limit, faults } = readLimit(draft, unit);
    if (Object.keys(faults).length > 0) return;
    const placed = placedOf(key);
    change((old) => (placed ? withPlaced(old, placed, limit) : { ...old, limits: { ...old.limits, [key]: limit } }));
    drop(key);
  };
  return (
    <Panel>
      <PanelTitle>Limits from the data sheet</PanelTitle>
      <Quiet>
        From the engine maker's current data; local rules and licensed practice come first. A limit that is missing is
        missing in the verdict.
      </Quiet>
      <LimitsTable
        rows={rows}
        unit={unit}
        onChange={put}
        onLeave={leave}
        onLeaveAll={() => setLeft(new Set(Object.keys(latest())))}
      />
      <PlacedLimits
        mains={layout.mains}
        thrustMain={layout.thrustMain}
        keys={rows.map(({ key }) => key)}
        onAdd={(number, key) => put(placedKey(number, key), EMPTY_LIMIT)}
      />
    </Panel>
  );
}

interface Placed {
  readonly number: string;
  readonly key: PlacedLimit;
}

/** The main and the limit that a row of one main is for; null for a row of the whole sheet. */
function placedOf(row: string): Placed | null {
  const [number = '', name] = row.split(' ');
  const key = PLACED_LIMITS.find((one) => one === name);
  return key ? { number, key } : null;
}

function placedRow({ layout, mainLimits, unit }: JobDocument, number: number, key: PlacedLimit) {
  return {
    name: `${limitName(key)}, main ${number}`,
    note: `only at ${mainName(number, layout.mains, layout.thrustMain)}`,
    text: textOfLimit(mainLimits[String(number)]?.[key] ?? null, unit),
  };
}

function withPlaced(job: JobDocument, { number, key }: Placed, limit: Limit | null): JobDocument {
  const { [key]: _, ...others } = job.mainLimits[number] ?? {};
  const own = limit === null ? others : { ...others, [key]: limit };
  const { [number]: _old, ...rest } = job.mainLimits;
  return { ...job, mainLimits: Object.keys(own).length === 0 ? rest : { ...rest, [number]: own } };
}

function EngineFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  const name = useKeptText({ of: id, part: 'engine', field: 'name' }, document.name);
  const throws = useKeptText({ of: id, part: 'layout', field: 'throws' }, throwsText(document.layout));
  const readThrows = withThrows(document.layout, throws.text);
  const commitName = () => {
    const trimmed = name.text.trim();
    if (trimmed === '') return;
    name.settled(trimmed);
    change((old) => ({ ...old, name: trimmed }));
  };
  const commitThrows = () => {
    if (!readThrows.ok) return;
    throws.settled(throwsText(readThrows.layout));
    change((old) => ({ ...old, layout: readThrows.layout }));
  };
  const { materials, layout } = document;
  const setMaterial = (part: keyof JobDocument['materials']) => (value: JobDocument['materials']['block']) =>
    change((old) => ({ ...old, materials: { ...old.materials, [part]: value } }));
  const mains = [
    { value: '', label: 'Not given' },
    ...Array.from({ length: layout.mains }, (_, at) => ({ value: String(at + 1), label: `Main ${at + 1}` })),
  ];
  return (
    <Panel>
      <PanelTitle>Engine</PanelTitle>
      <Pairs>
        <Field
          label="Name, with its number"
          value={name.text}
          maxLength={80}
          onChange={name.setText}
          isLeftOver={name.isLeftOver}
          onBlur={commitName}
          fault={name.text.trim() === '' ? 'Enter a name for the engine.' : null}
        />
        <Choice
          label="Units"
          value={document.unit}
          options={UNIT_OPTIONS}
          onChange={(unit) => change((old) => ({ ...old, unit }))}
        />
        <Choice label="Block of" value={materials.block} options={MATERIAL_OPTIONS} onChange={setMaterial('block')} />
        <Choice label="Caps of" value={materials.caps} options={MATERIAL_OPTIONS} onChange={setMaterial('caps')} />
        <Choice label="Rods of" value={materials.rods} options={MATERIAL_OPTIONS} onChange={setMaterial('rods')} />
        <Choice
          label="Thrust at"
          value={layout.thrustMain === null ? '' : String(layout.thrustMain)}
          options={mains}
          onChange={(value) =>
            change((old) => ({ ...old, layout: { ...old.layout, thrustMain: value === '' ? null : Number(value) } }))
          }
        />
        <Choice
          label="Work covers"
          value={document.withRods ? 'yes' : 'no'}
          options={[
            { value: 'no', label: 'The mains' },
            { value: 'yes', label: 'The mains and the rods' },
          ]}
          onChange={(value) => change((old) => ({ ...old, withRods: value === 'yes' }))}
        />
        {(document.withRods ? (['kind', 'bigEnds'] as const) : (['kind'] as const)).map((key) => (
          <Choice
            key={key}
            label={key === 'kind' ? 'Joints of the mains' : 'Joints of the big ends'}
            value={document.crush[key] ?? 'none'}
            options={JOINT_OPTIONS}
            onChange={(kind) =>
              change((old) => ({ ...old, crush: { ...old.crush, [key]: kind === 'none' ? null : kind } }))
            }
          />
        ))}
        <Choice
          label="Built for"
          value={document.use ?? 'unknown'}
          options={USES}
          onChange={(use) => change((old) => ({ ...old, use: use === 'unknown' ? null : use }))}
        />
        <Field
          className="whole"
          label="Crank throws, degrees, front to rear"
          figure
          value={throws.text}
          onChange={throws.setText}
          isLeftOver={throws.isLeftOver}
          onBlur={commitThrows}
          fault={readThrows.ok ? null : readThrows.message}
        />
      </Pairs>
      <ShaftDrawing layout={readThrows.ok ? readThrows.layout : layout} height={96} />
    </Panel>
  );
}

const AIMS = (Object.keys(AIM_WORDS) as AimRule['kind'][]).map((value) => ({ value, label: AIM_WORDS[value] }));

const USES = [
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

function AimFields({ id: job, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
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

function RodField({
  id,
  number,
  document,
  change,
}: {
  id: string;
  number: number;
  document: JobDocument;
  change: ChangeDocument;
}) {
  const rod = document.rods[String(number)] ?? { mark: '', pin: null };
  const mark = useKeptText({ of: id, part: partName('bigEnd', number), field: 'mark' }, rod.mark);
  const bank = rodBank(document, number);
  const set = (part: Partial<typeof rod>) =>
    change((old) => {
      const before = old.rods[String(number)] ?? { mark: '', pin: null };
      return { ...old, rods: { ...old.rods, [String(number)]: { ...before, ...part } } };
    });
  const box = (
    <Field
      label={`R${number} mark`}
      value={mark.text}
      maxLength={20}
      onChange={mark.setText}
      isLeftOver={mark.isLeftOver}
      onBlur={() => {
        const text = mark.text.trim();
        mark.settled(text);
        if (text === rod.mark) return;
        set({ mark: text });
      }}
    />
  );
  if (bank === null) return box;
  return (
    <div>
      {box}
      <Choice
        label={`R${number} bank`}
        value={bank}
        options={[
          { value: 'A', label: 'A, front on the pin' },
          { value: 'B', label: 'B, rear on the pin' },
        ]}
        onChange={(value) => set({ bank: value })}
      />
    </div>
  );
}

/** The rods by number, each with the mark that is stamped or scratched on it. */
function RodFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  return (
    <Panel>
      <PanelTitle>Rods</PanelTitle>
      <Quiet>
        Numbered as removed. Write down marks before cleaning: scratched ones vanish. A rod keeps its cap, and may go on
        any pin{hasBanks(document.layout) && ' of its bank'} until locked under Select shells.
      </Quiet>
      <Extras>
        {Array.from({ length: rodCount(document.layout) }, (_, at) => at + 1).map((number) => (
          <RodField key={number} id={id} number={number} document={document} change={change} />
        ))}
      </Extras>
    </Panel>
  );
}

interface PlaceFieldProps {
  readonly id: string;
  readonly number: number;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
}

/** The name of a main that takes halves of its own; saved when it is left. */
function PlaceField({ id, number, document, change }: PlaceFieldProps) {
  const key = String(number);
  const isThrust = document.layout.thrustMain === number;
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: id, part: `M${number}`, field: 'place' },
    document.places[key] ?? '',
  );
  const read = text.trim() === '' ? null : positionSchema.safeParse(text);
  const commit = () => {
    if (read && !read.success) return;
    settled(read?.data ?? '');
    if ((read?.data ?? '') === (document.places[key] ?? '')) return;
    change((old) => {
      const { [key]: _, ...others } = old.places;
      return { ...old, places: read ? { ...others, [key]: read.data } : others };
    });
  };
  return (
    <Field
      aria-label={`Place of M${number}`}
      label=""
      value={text}
      maxLength={20}
      placeholder={isThrust ? THRUST_PLACE : ''}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={commit}
      onKeyDown={(event) => event.key === 'Enter' && commit()}
      fault={read && !read.success ? read.error.issues[0]!.message : null}
    />
  );
}

/** Torques with the other limits of the sheet; the stage Torque tightens by them. */
function TighteningPanel({ job }: { job: OpenJob }) {
  const work = useTorque(job);
  const families = familiesOf(job.document);
  return (
    <Panel aria-label="Tightening figures">
      <PanelTitle>Tightening figures</PanelTitle>
      <Quiet>
        Torque, angle or stretch from the book, with its source. Figures of an engine type are under Torque.
      </Quiet>
      {families.map((family) => (
        <OwnFigures key={family} job={job.id} family={family} work={work} isWanted={false} />
      ))}
    </Panel>
  );
}

/** What the engine is, what its maker's book says, and what is aimed at. */
export function DataSheet() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document } = job;
  return (
    <>
      <EngineFields id={job.id} document={document} change={change} />
      <UnitMoved job={job} />
      <LimitsPanel id={job.id} document={document} change={change} />
      <AimFields id={job.id} document={document} change={change} />
      <TighteningPanel job={job} />
      {document.withRods && <RodFields id={job.id} document={document} change={change} />}
      <OriginPanel job={job} />
    </>
  );
}
