import { FEATURE_TABLE, featureOf, measuredParts } from '@fettle/core';
import { Link, useNavigate } from 'react-router';
import { useOpenJob } from '../job/JobPage.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { TwoColumns } from '../look/TwoColumns.js';
import { LengthField } from '../measure/LengthField.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { CleanUpText } from './CleanUpText.js';
import { codesRows } from './codesRows.js';
import { Disagreements } from './Disagreements.js';
import { ReplaceRod } from './ReplaceRod.js';
import { RowDoubts } from './RowDoubts.js';
import { RowField } from './RowField.js';
import { useCodes } from './useCodes.js';

/** What stations are chosen from, and how far a reading may be off. */
function DepthPanel({ job }: { readonly job: OpenJob }) {
  const change = useChangeDocument(job);
  const { document } = job;
  const { unit } = document;
  return (
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
        kept={{ of: job.id, part: 'measuring', field: 'uncertainty' }}
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
  );
}

/** Marks typed as they are stamped, drawn on the shaft, with what the sheet's table calls for and how well that is known. */
export function CodesView() {
  const job = useOpenJob();
  const { document, readings } = job;
  const { layout } = document;
  const codes = useCodes(job);
  const { features, kept, firstOf, commit, coded, lacking, marksOf } = codes;
  const navigate = useNavigate();
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
    measuredParts(document, readings, featureOf(family, 'journal')).some(({ findings }) =>
      findings.some(({ side, kind }) => side === 'under' && kind === 'size'),
    ),
  );
  return (
    <>
      <ShaftLine
        layout={layout}
        rows={codesRows(codes, readings, (feature) => (
          <RowField
            document={document}
            feature={feature}
            text={kept[feature].text}
            isLeftOver={kept[feature].isLeftOver}
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
        show={features.some((feature) => FEATURE_TABLE[feature].family === 'rod') ? 'both' : 'mains'}
        drawingHeight={104}
        marks={new Map([...marksOf('mainJournal'), ...marksOf('pin')])}
      />
      <Quiet>
        Write marks down before cleaning: scratched ones vanish. A row may run from either end; see on the shaft that it
        is the right one.
        {document.sheet?.viewFrom === 'rear' && ' The book looks at this engine from the rear.'}
      </Quiet>
      <Row>
        <Button
          isDisabled={![...coded.values()].some(({ grades }) => grades !== null)}
          onPress={() => codes.hold() && void navigate('../choose')}
        >
          Hold what the table calls for
        </Button>
        {codes.placeRods && (
          <>
            <Button onPress={codes.placeRods}>Put each rod on its own pin</Button>
            <Quiet>The table needs to know which rod is on which pin; or let the choice place them.</Quiet>
          </>
        )}
        {lacking.length > 0 && (
          <p role="alert">
            Not in this engine's drawer: {lacking.join(', ')}.{' '}
            <Link to="../drawer">Add the grades of the data sheet</Link> first.
          </p>
        )}
      </Row>
      <RowDoubts
        job={job}
        onTurn={({ feature }) => commit(feature, kept[feature].text, firstOf(feature) === 'front' ? 'rear' : 'front')}
      />
      <Disagreements job={job} />
      {worn.map((family) => (
        <Notice key={family}>
          <CleanUpText document={document} readings={readings} family={family} />
        </Notice>
      ))}
      <TwoColumns>
        <div>
          <DepthPanel job={job} />
        </div>
        <div>{document.withRods && features.includes('bigEnd') && <ReplaceRod job={job} />}</div>
      </TwoColumns>
    </>
  );
}
