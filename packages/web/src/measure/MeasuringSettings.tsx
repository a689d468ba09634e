import {
  DIRECTION_COUNTS,
  type DirectionCount,
  FAMILY_TABLE,
  FEATURE_TABLE,
  FEATURES,
  type Feature,
  type JobDocument,
  type Limit,
  lengthText,
  MEASURING_SETTINGS,
  type Nanometres,
  type Needle,
  nanometres,
  ownSettings,
  type PlaneCount,
  type Slot,
  schemeSlots,
} from '@fettle/core';
import styled from 'styled-components';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { LengthField } from '../typing/LengthField.js';
import { SettingBox } from '../typing/SettingBox.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Panel } from '../ui/Panel.js';
import { HowItIsRead } from './HowItIsRead.js';

const Settings = styled(Panel)`
  display: grid;
  grid-template-columns: repeat(3, minmax(10rem, 1fr)) minmax(14rem, 1.1fr);
  gap: 0.25rem 1rem;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
  align-items: start;
  padding: 0.75rem 1rem;
  .offers { display: flex; flex-wrap: wrap; gap: 0 0.25rem; }
  .offers button { min-height: 32px; padding: 0 0.35rem; font-size: var(--size-small); }
  .limits { align-self: center; font-size: var(--size-small); color: var(--ink-soft); }
`;

const PLANE_WORDS: Readonly<Record<PlaneCount, string>> = { 1: 'One plane', 2: 'Two planes', 3: 'Three planes' };
const ACROSS: Readonly<Record<Exclude<DirectionCount, 1>, Readonly<Record<'housing' | 'journal', string>>>> = {
  2: { housing: 'bolt direction and across', journal: '0° and 90°' },
  3: { housing: 'three directions', journal: 'three directions' },
  4: { housing: 'four directions', journal: 'four directions' },
  6: { housing: 'six directions', journal: 'six directions' },
};

/** What a scheme of reading is called. */
function schemeName(role: 'housing' | 'journal', planes: PlaneCount, directions: DirectionCount): string {
  if (directions > 1) return `${PLANE_WORDS[planes]}, ${ACROSS[directions as 2][role]}`;
  if (role === 'housing')
    return planes === 1 ? 'One reading, bolt direction' : `${PLANE_WORDS[planes]}, bolt direction`;
  return planes === 1 ? 'One reading' : `${PLANE_WORDS[planes]}, 0°`;
}

/** Ways of reading a part: in one to three planes, in one to six directions each. */
function schemesOf(role: 'housing' | 'journal') {
  return ([1, 2, 3] as const).flatMap((planes) =>
    DIRECTION_COUNTS.map((directions) => ({
      value: schemeSlots(role, planes, directions).join(),
      label: schemeName(role, planes, directions),
    })),
  );
}
/** The sizes that a gauge is usually set to, from the limits. */
const SETTINGS: readonly { readonly word: string; readonly of: (limit: Limit) => Nanometres }[] = [
  { word: 'Low', of: ({ low }) => low },
  { word: 'Middle', of: ({ low, high }) => nanometres(Math.round((low + high) / 2)) },
  { word: 'High', of: ({ high }) => high },
];

/** The first place of each kind of part. */
const ONE_READING = { housing: 'front', journal: 'front-0' } as const;

const SCHEMES = { housing: schemesOf('housing'), journal: schemesOf('journal') };

/** On to the first box without a reading: the button that was pressed is gone. */
function toFirstEmpty(): void {
  requestAnimationFrame(() => {
    const boxes = [...window.document.querySelectorAll<HTMLInputElement>('input[data-reading]')];
    boxes.find((box) => box.value.trim() === '')?.focus();
  });
}

interface MeasuringSettingsProps {
  readonly job: Pick<OpenJob, 'id' | 'document' | 'readings'>;
  readonly feature: Feature;
  /** Called with a setting size once it is entered. */
  readonly onSetting: (value: Nanometres | null) => void;
  /** Called when it is said which way the needle goes. */
  readonly onNeedle: (needle: Needle) => void;
}

interface SettingSizeProps {
  readonly job: string;
  readonly document: JobDocument;
  readonly feature: Feature;
  readonly onCommit: (value: Nanometres | null) => void;
}

/** The size that the gauge is set to; until there is one, the limits offer theirs. */
function SettingSize({ job, document, feature, onCommit }: SettingSizeProps) {
  const { unit, measuring } = document;
  const limit = document.limits[feature];
  return (
    <div>
      <LengthField
        key={feature}
        kept={{ of: job, part: feature, field: 'setting' }}
        label={`Setting size, ${unit} (for + and − readings)`}
        unit={unit}
        value={measuring.setting[feature]}
        check={(value) => (value > 0 ? null : 'Enter a setting size above 0.')}
        onCommit={onCommit}
      />
      {limit && measuring.setting[feature] === null && (
        <p className="offers">
          {SETTINGS.map(({ word, of }) => (
            <Button
              key={word}
              $kind="quiet"
              onPress={() => {
                onCommit(of(limit));
                toFirstEmpty();
              }}
            >
              {word} {lengthText(of(limit), unit)}
            </Button>
          ))}
        </p>
      )}
    </div>
  );
}

interface SchemeProps {
  readonly document: JobDocument;
  readonly feature: Feature;
  /** Features of which nothing was read yet. */
  readonly unread: readonly Feature[];
  readonly onChange: (slots: Partial<JobDocument['measuring']['slots']>) => void;
}

/** Where a part is read, in planes and directions; while nothing was read, one reading a part is a touch away. */
function Scheme({ document, feature, unread, onChange }: SchemeProps) {
  const slots = document.measuring.slots[feature];
  const { family, role } = FEATURE_TABLE[feature];
  return (
    <div>
      <Choice
        label={FAMILY_TABLE[family].housingsMove ? 'Readings at each' : 'Readings at each main'}
        value={slots.join()}
        options={SCHEMES[role]}
        onChange={(value) => onChange({ [feature]: value.split(',') as Slot[] })}
      />
      {unread.includes(feature) && slots.length > 1 && (
        <p className="offers">
          <Button
            $kind="quiet"
            onPress={() => {
              onChange(Object.fromEntries(unread.map((one) => [one, [ONE_READING[FEATURE_TABLE[one].role]]])));
              toFirstEmpty();
            }}
          >
            One reading a part
          </Button>
        </p>
      )}
    </div>
  );
}

/** How a feature is measured: the size the gauge was set to, where it is read, which way Enter goes, and its limits. */
export function MeasuringSettings({ job, feature, onSetting, onNeedle }: MeasuringSettingsProps) {
  const change = useChangeDocument(job);
  const { document } = job;
  const { unit, measuring } = document;
  const limit = document.limits[feature];
  const own = new Map(ownSettings(MEASURING_SETTINGS, { feature }));
  const set = (part: (old: JobDocument['measuring']) => Partial<JobDocument['measuring']>) =>
    change((old) => ({ ...old, measuring: { ...old.measuring, ...part(old.measuring) } }));
  return (
    <Settings>
      <SettingSize
        job={job.id}
        document={document}
        feature={feature}
        onCommit={(value) => {
          set(({ setting }) => ({ setting: { ...setting, [feature]: value } }));
          onSetting(value);
        }}
      />
      <Scheme
        document={document}
        feature={feature}
        unread={FEATURES.filter((one) => !job.readings.some(({ feature: read }) => read === one))}
        onChange={(slots) => set((old) => ({ slots: { ...old.slots, ...slots } }))}
      />
      {(['order', 'alongLine'] as const)
        .filter((key) => own.has(key))
        .map((key) => (
          <SettingBox
            key={key}
            kept={{ of: job.id, part: feature, field: key }}
            field={MEASURING_SETTINGS[key].field}
            unit={unit}
            value={measuring[key]}
            engine={{ feature }}
            onCommit={(value) => set(() => ({ [key]: value }))}
          />
        ))}
      <p className="limits">
        {limit ? (
          <>
            Limits <span className="figure">{lengthText(limit.low, unit)}</span> to{' '}
            <span className="figure">{lengthText(limit.high, unit)}</span>, {limit.source}
          </>
        ) : (
          'No limits on the data sheet yet: readings are not checked.'
        )}
      </p>
      <HowItIsRead job={job} feature={feature} onNeedle={onNeedle} />
    </Settings>
  );
}
