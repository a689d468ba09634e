import {
  type CodedStation,
  codedFeatures,
  codedStations,
  type Feature,
  formatExactLength,
  heldAsCoded,
  INSTRUMENT_DECIMALS,
  jobDocumentSchema,
  mainStations,
  measuredParts,
  PAINTS,
  partName,
  pinnedRods,
  placedRods,
  rodStations,
  rowLayout,
} from '@fettle/core';
import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { GradeName, PaintDab } from '../look/GradeSwatch.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { STATE_WORDS, StateShape } from '../look/StateMark.js';
import { TwoColumns } from '../look/TwoColumns.js';
import { useKeptText } from '../look/useKeptText.js';
import { LengthField } from '../measure/LengthField.js';
import { IntervalBar } from '../shaft/IntervalBar.js';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import type { ShaftColumn } from '../shaft/shaftColumns.js';
import { CleanUpText } from './CleanUpText.js';
import { chanceText } from './chanceText.js';
import { Disagreements } from './Disagreements.js';
import { type MarkTexts, rodRow, withTexts } from './markTexts.js';
import { paintOf } from './paintOf.js';
import { ReplaceRod } from './ReplaceRod.js';
import { decodedText, RowField } from './RowField.js';

const Mark = styled.strong`
  font-family: var(--figures);
  font-size: clamp(1.1rem, 26cqi, 1.6rem);
  line-height: 1.2;
  &.unknown { color: var(--tight); text-decoration: underline wavy; }
`;

const Called = styled.span`
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.1rem;
  font-size: var(--size-small);
  line-height: 1.2;
`;

/** Marks typed as they are stamped, drawn on the shaft, with what the sheet's table calls for and how well that is known. */
export function CodesView() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document, readings } = job;
  const { unit, layout } = document;
  const features = codedFeatures(document);
  const navigate = useNavigate();
  const [lacking, setLacking] = useState<readonly string[]>([]);
  const kept = {
    mainBore: useKeptText(`${job.id} marks mainBore`, document.marks.mainBore?.text ?? ''),
    mainJournal: useKeptText(`${job.id} marks mainJournal`, document.marks.mainJournal?.text ?? ''),
    bigEnd: useKeptText(`${job.id} marks bigEnd`, rodRow(document)),
    pin: useKeptText(`${job.id} marks pin`, document.marks.pin?.text ?? ''),
  };
  const firstOf = (feature: Feature) => rowLayout(document, feature).first;
  const texts: MarkTexts = Object.fromEntries(
    features.flatMap((feature) => {
      const { text } = kept[feature];
      return text.trim() === '' ? [] : [[feature, { text, first: firstOf(feature) }]];
    }),
  );
  const shown = withTexts(document, texts);
  const commit = (feature: Feature, text: string, first = firstOf(feature)) => {
    const row = { [feature]: { text: text.trim(), first } };
    if (feature === 'bigEnd') {
      const decoded = decodedText(document, feature, text, first);
      // Until every rod has its mark the row stays in its box.
      if (!decoded?.ok) return;
    }
    kept[feature].settled(text.trim());
    change((old) => {
      const next = withTexts(old, row);
      return jobDocumentSchema.parse({ ...next, marks: { ...old.marks, ...row } });
    });
  };
  const placed = { ...pinnedRods(shown), ...placedRods(document.choice?.stations ?? {}) };
  const coded = codedStations(shown, placed);
  const decoded = new Map(
    features.map((feature) => [feature, decodedText(document, feature, kept[feature].text, firstOf(feature))]),
  );
  const wordAt = (feature: Feature, number: number) =>
    decoded.get(feature)?.marks.find(({ station }) => station === number) ?? null;
  const markCell = (feature: Feature, number: number) => {
    const found = wordAt(feature, number);
    const isWrong = found !== null && (found.mark === null || decoded.get(feature)?.ok === false);
    if (!found) return <span className="figure">·</span>;
    const paint = PAINTS.find((one) => one === found.typed.toLowerCase());
    return (
      <Mark className={isWrong ? 'unknown' : ''}>
        {paint && <PaintDab paint={paint} size={20} />} {found.typed}
      </Mark>
    );
  };
  const sized = new Map(
    (['mainBore', 'mainJournal', 'bigEnd', 'pin'] as const).map((feature) => [
      feature,
      measuredParts(shown, readings, feature),
    ]),
  );
  // Where a part is not what its mark says, what the table says of that mark does not hold.
  const contradicted = new Map(
    [...mainStations(shown, readings), ...rodStations(shown, readings, placed)].flatMap(
      ({ id, disagreements, findings }) =>
        disagreements.length > 0
          ? [[id, 'not as marked'] as const]
          : findings.length > 0
            ? [[id, STATE_WORDS.blocked] as const]
            : [],
    ),
  );
  const rowsFor = (family: 'main' | 'rod'): ShaftRow[] => {
    const [housing, journal] =
      family === 'main' ? (['mainBore', 'mainJournal'] as const) : (['bigEnd', 'pin'] as const);
    const codes = shown.limits[family === 'main' ? 'mainClearance' : 'rodClearance'];
    const cell = (draw: (one: CodedStation) => ReactNode) => (column: ShaftColumn) => {
      const one = coded.get(column.key);
      return one ? draw(one) : <span className="figure">·</span>;
    };
    const calledRows: ShaftRow[] = [
      {
        key: 'called',
        label: (
          <>
            Table calls for
            <small>upper, lower</small>
          </>
        ),
        cell: cell(({ grades }) =>
          grades === null ? (
            <Quiet>no cell</Quiet>
          ) : (
            <Called>
              {(grades.upper === grades.lower ? [grades.upper] : [grades.upper, grades.lower]).map((grade) => (
                <GradeName key={grade} name={grade} paint={paintOf(document, family, grade)} />
              ))}
            </Called>
          ),
        ),
      },
      {
        key: 'interval',
        label: (
          <>
            Clearance
            <small>by marks, {unit}</small>
          </>
        ),
        cell: cell(({ interval }) =>
          interval ? <IntervalBar interval={interval} limits={codes} unit={unit} /> : <span className="figure">·</span>,
        ),
      },
      {
        key: 'chance',
        label: 'Inside',
        cell: (column) => {
          const one = coded.get(column.key);
          if (!one) return <span className="figure">·</span>;
          const { inside } = one;
          return contradicted.has(column.key) ? (
            <Called>
              <StateShape state={contradicted.get(column.key) === STATE_WORDS.blocked ? 'blocked' : 'close'} />
              <strong>{contradicted.get(column.key)}</strong>
            </Called>
          ) : inside === null ? (
            <Quiet>not judged</Quiet>
          ) : (
            <Called>
              <StateShape state={inside === 1 ? 'inside' : 'close'} />
              <strong>{chanceText(inside)}</strong>
            </Called>
          );
        },
      },
    ];
    const isRead = (feature: Feature) => readings.some((reading) => reading.feature === feature && reading.nm !== null);
    const readRows: ShaftRow[] = [housing, journal].filter(isRead).map((feature) => ({
      key: `read ${feature}`,
      label: (
        <>
          {feature === housing ? 'Bore read' : family === 'main' ? 'Journal read' : 'Pin read'}
          <small>{unit}</small>
        </>
      ),
      cell: ({ key, number }) => {
        const place = family === 'rod' && feature === housing ? placed[key] : number;
        const part = place === undefined ? undefined : sized.get(feature)![place - 1];
        if (!part?.size || part.size.count === 0) return <span className="figure">·</span>;
        return (
          <Called>
            <span className="figure">{formatExactLength(part.size.nominal, unit, INSTRUMENT_DECIMALS[unit])}</span>
            {part.disagreement && <strong>not as marked</strong>}
          </Called>
        );
      },
    }));
    return [
      { key: 'station', label: 'Station', cell: ({ key }) => <strong>{key}</strong> },
      ...(features.includes(housing)
        ? [
            {
              key: 'housing',
              label: family === 'main' ? 'Bore' : 'Rod placed here',
              cell: ({ key, number }: ShaftColumn) => {
                if (family === 'main') return markCell(housing, number);
                const rod = placed[key];
                return rod === undefined ? (
                  <Quiet>not placed</Quiet>
                ) : (
                  <Called>
                    R{rod} {markCell(housing, rod)}
                  </Called>
                );
              },
            },
          ]
        : []),
      ...(features.includes(journal)
        ? [
            {
              key: 'journal',
              label: family === 'main' ? 'Journal' : 'Pin',
              cell: ({ number }: ShaftColumn) => markCell(journal, number),
            },
          ]
        : []),
      ...readRows,
      ...(family === 'rod' && ![...coded.keys()].some((id) => id.startsWith('P')) ? [] : calledRows),
    ];
  };
  const marksOf = (feature: Feature) =>
    new Map((decoded.get(feature)?.marks ?? []).map(({ station, typed }) => [partName(feature, station), typed]));

  if (features.length === 0) {
    return (
      <Panel>
        <p>
          This engine's data sheet knows no marks. Take a sheet with codes from the library on the{' '}
          <Link to="../data">data sheet</Link> page.
        </p>
      </Panel>
    );
  }
  const worn = (['main', 'rod'] as const).filter((family) =>
    measuredParts(document, readings, family === 'main' ? 'mainJournal' : 'pin').some(({ findings }) =>
      findings.some(({ side, kind }) => side === 'under' && kind === 'size'),
    ),
  );
  return (
    <>
      <ShaftLine layout={layout} rows={rowsFor('main')} drawingHeight={104} marks={marksOf('mainJournal')} />
      <Row>
        <Button
          isDisabled={![...coded.values()].some(({ grades }) => grades !== null)}
          onPress={() => {
            const held = heldAsCoded(document, new Map([...coded].filter(([id]) => !contradicted.has(id))));
            if (!held.ok) return setLacking(held.missing);
            setLacking([]);
            change((old) => ({ ...old, wishes: held.wishes }));
            void navigate('../choose');
          }}
        >
          Hold what the table calls for
        </Button>
        {lacking.length > 0 && (
          <p role="alert">
            Not in this engine's drawer: {lacking.join(', ')}.{' '}
            <Link to="../drawer">Add the grades of the data sheet</Link> first.
          </p>
        )}
      </Row>
      <Disagreements job={job} />
      {worn.map((family) => (
        <Notice key={family}>
          <CleanUpText document={document} readings={readings} family={family} />
        </Notice>
      ))}
      <TwoColumns>
        <div>
          <Panel>
            <PanelTitle>Marks as they are stamped</PanelTitle>
            <Quiet>
              Write them down before cleaning: scratched marks vanish. A row may run from either end; see on the shaft
              that it is the right one.
              {document.sheet?.viewFrom === 'rear' && ' The book looks at this engine from the rear.'}
            </Quiet>
            {features.map((feature) => (
              <RowField
                key={feature}
                document={document}
                feature={feature}
                text={kept[feature].text}
                first={firstOf(feature)}
                onType={kept[feature].setText}
                onLeave={() => commit(feature, kept[feature].text)}
                onTake={(text) => {
                  kept[feature].setText(text);
                  commit(feature, text);
                }}
                onFirst={(first) => commit(feature, kept[feature].text, first)}
              />
            ))}
          </Panel>
        </div>
        <div>
          <Panel>
            <PanelTitle>How the shells are chosen</PanelTitle>
            <Choice
              label="Stations are chosen from"
              value={document.depth}
              options={[
                { value: 'measure', label: 'measured sizes; marks until they are read' },
                { value: 'codes', label: 'marks alone, as wide as they are' },
              ]}
              onChange={(depth) => change((old) => ({ ...old, depth }))}
            />
            <LengthField
              kept="uncertainty"
              label={`A reading may be off by ±, ${unit}`}
              unit={unit}
              value={document.measuring.uncertainty}
              optional={false}
              check={(value) => (value >= 0 ? null : 'Zero or more.')}
              onCommit={(uncertainty) =>
                uncertainty !== null && change((old) => ({ ...old, measuring: { ...old.measuring, uncertainty } }))
              }
            />
            <Quiet>
              A size counts before its mark as soon as it is read. It starts at 0.002 mm, common practice for good
              instruments: put in what yours do.
            </Quiet>
          </Panel>
          {document.withRods && features.includes('bigEnd') && <ReplaceRod job={job} />}
        </div>
      </TwoColumns>
      {document.withRods && (features.includes('bigEnd') || features.includes('pin')) && (
        <ShaftLine layout={layout} rows={rowsFor('rod')} show="rods" drawingHeight={104} marks={marksOf('pin')} />
      )}
    </>
  );
}
