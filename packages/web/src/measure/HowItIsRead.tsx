import {
  FEATURE_TABLE,
  type Feature,
  instrumentInUse,
  instrumentWords,
  type JobDocument,
  knownInstrument,
  MEASURING_SETTINGS,
  type Needle,
  needleOf,
  partCount,
  READING_MODES,
  type ReadingMode,
  type Route,
  readingModeWord,
  routes,
  type Zeroing,
} from '@fettle/core';
import styled from 'styled-components';
import { InstrumentPicker } from '../instrument/InstrumentPicker.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { CelsiusField } from '../typing/CelsiusField.js';
import { SettingBox } from '../typing/SettingBox.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Fold } from '../ui/Fold.js';
import { Table } from '../ui/Panel.js';
import { NEEDLE_WORDS } from './NeedleAsk.js';
import { SoakAdvice } from './SoakAdvice.js';

const Whole = styled(Fold)`
  grid-column: 1 / -1;
  margin-top: 0;
`;

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(12rem, 1fr));
  gap: 0.25rem 1rem;
`;

const MODE_OPTIONS: readonly { readonly value: ReadingMode | ''; readonly label: string }[] = [
  { value: '', label: 'not set' },
  ...READING_MODES.map((value) => ({ value, label: readingModeWord(value) })),
];

const ZEROING_WORDS: Readonly<Record<Zeroing, string>> = {
  setting: 'set once on a setting size',
  bore: 'zeroed in each bore, read by micrometer',
  journal: 'set on each journal, shells in: it shows the clearance',
};

function counted(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}

interface RoutesProps {
  readonly order: JobDocument['measuring']['order'];
  readonly count: number;
  readonly words: string;
  readonly onTake: (route: Route) => void;
}

/** The ways of reading the housings with one gauge, the least setting and walking first; one of them can be taken, and Enter follows it. */
function Routes({ order, count, words, onTake }: RoutesProps) {
  return (
    <Table aria-label={`Ways of reading ${counted(count, 'housing')}`}>
      <thead>
        <tr>
          <th>The gauge is</th>
          <th className="number">Settings</th>
          <th className="number">Trips</th>
          <th>Enter moves</th>
          <th>
            <span className="visually-hidden">Use</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {routes(count).map((route) => (
          <tr key={route.zeroing}>
            <td>{ZEROING_WORDS[route.zeroing]}</td>
            <td className="number">{route.settings}</td>
            <td className="number">{route.walks}</td>
            <td>{route.order === 'along' ? 'along the shaft' : `down each of the ${words}`}</td>
            <td>
              {route.order === order ? (
                'as set now'
              ) : (
                <Button
                  aria-label={`Use this order: a gauge ${ZEROING_WORDS[route.zeroing]}`}
                  onPress={() => onTake(route)}
                >
                  Use this order
                </Button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** What readings from now on are taken with: the needle's way, and how warm parts and instruments are. */
export function HowItIsRead({
  job,
  feature,
  onNeedle,
}: {
  readonly job: Pick<OpenJob, 'id' | 'document'>;
  readonly feature: Feature;
  readonly onNeedle: (needle: Needle) => void;
}) {
  const change = useChangeDocument(job);
  const { document } = job;
  const { measuring } = document;
  const { role, words } = FEATURE_TABLE[feature];
  const isHousing = role === 'housing';
  const celsius = measuring.celsius[feature];
  const set = (part: Partial<JobDocument['measuring']>) =>
    change((old) => ({ ...old, measuring: { ...old.measuring, ...part } }));
  const mode = measuring.mode[feature];
  const key = instrumentInUse(document, feature);
  const isOwn = knownInstrument(document, key) === null;
  const needle = needleOf(document, feature);
  const said = [
    ...(isOwn ? [] : [`with ${instrumentWords(document, key)}`]),
    ...(mode === null ? [] : [readingModeWord(mode)]),
    ...(isHousing ? [needle === null ? 'needle direction not set' : `+ is ${NEEDLE_WORDS[needle]}`] : []),
    celsius === null
      ? 'not temperature-corrected'
      : `${words} at ${celsius} °C, instrument at ${measuring.gaugeCelsius ?? 20} °C: sizes are shown at 20 °C`,
  ];
  return (
    <Whole>
      <summary>How it is read: {said.join('; ')}</summary>
      <Fields>
        <InstrumentPicker job={job} use={feature} label={`The ${words} are read with`} />
        <Choice
          label={isHousing ? 'The bores are read' : `The ${words} are read`}
          value={mode ?? ''}
          options={isHousing ? MODE_OPTIONS : MODE_OPTIONS.filter(({ value }) => value !== 'bore')}
          onChange={(value) => set({ mode: { ...measuring.mode, [feature]: value === '' ? null : value } })}
        />
        {isHousing && isOwn && (
          <Choice
            label="Needle + means"
            value={needle ?? 'unsaid'}
            options={[
              ...(needle === null ? [{ value: 'unsaid', label: 'not said yet' } as const] : []),
              { value: 'bigger', label: NEEDLE_WORDS.bigger },
              { value: 'smaller', label: `${NEEDLE_WORDS.smaller}, as on most dials clockwise` },
            ]}
            onChange={(said) => said !== 'unsaid' && onNeedle(said)}
          />
        )}
        <CelsiusField
          key={feature}
          kept={{ of: job.id, part: feature, field: 'celsius' }}
          label={`The ${words} are at, °C`}
          value={celsius}
          onCommit={(value) => set({ celsius: { ...measuring.celsius, [feature]: value } })}
        />
        <SettingBox
          kept={{ of: job.id, part: 'measuring', field: 'gaugeCelsius' }}
          field={MEASURING_SETTINGS.gaugeCelsius.field}
          unit={document.unit}
          value={measuring.gaugeCelsius}
          onCommit={(gaugeCelsius) => set({ gaugeCelsius })}
        />
      </Fields>
      <SoakAdvice key={`soak ${feature}`} job={job} feature={feature} />
      {isHousing && (
        <Routes
          order={measuring.order}
          count={partCount(document.layout, feature)}
          words={words}
          onTake={({ order, zeroing }) =>
            set({ order, ...(zeroing === 'journal' ? {} : { mode: { ...measuring.mode, [feature]: zeroing } }) })
          }
        />
      )}
    </Whole>
  );
}
