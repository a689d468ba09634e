import { FAMILIES, FAMILY_TABLE, FEATURE_TABLE, featureOf, MEASURING_SETTINGS, measuredParts } from '@fettle/core';
import { Link, useNavigate } from 'react-router';
import { useOpenJob } from '../job/JobPage.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { CleanUpText } from '../shaft/CleanUpText.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { SettingBox } from '../typing/SettingBox.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
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
      <PanelTitle>Basis of selection</PanelTitle>
      <Choice
        label="Select from"
        value={document.depth}
        options={[
          { value: 'measure', label: 'measured sizes; marks until measured' },
          { value: 'codes', label: 'marks only, full band' },
        ]}
        onChange={(depth) => change((old) => ({ ...old, depth }))}
      />
      <SettingBox
        kept={{ of: job.id, part: 'measuring', field: 'uncertainty' }}
        field={MEASURING_SETTINGS.uncertainty.field}
        unit={unit}
        value={document.measuring.uncertainty}
        onCommit={(uncertainty) => change((old) => ({ ...old, measuring: { ...old.measuring, uncertainty } }))}
      />
      <Quiet>
        A measured size replaces its mark. The ± starts at 0.002 mm, common practice for good instruments: enter that of
        yours.
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
          This data sheet has no grade marks. Use one from the library on the <Link to="../data">data sheet</Link> page.
        </p>
      </Panel>
    );
  }
  const worn = FAMILIES.filter((family) =>
    measuredParts(document, readings, featureOf(family, 'journal')).some(({ findings }) =>
      findings.some(({ side, kind }) => side === 'under' && kind === 'size'),
    ),
  );
  return (
    <>
      <ShaftLine
        label="Marks by station"
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
        show={features.some((feature) => FAMILY_TABLE[FEATURE_TABLE[feature].family].isWithRods) ? 'both' : 'mains'}
        drawingHeight={104}
        marks={new Map([...marksOf('mainJournal'), ...marksOf('pin')])}
      />
      <Quiet>
        Write marks down before cleaning: scratched ones vanish. A row may run from either end; see on the shaft that it
        is the right one.
        {document.sheet?.viewFrom === 'rear' && ' The book views this engine from the rear.'}
      </Quiet>
      <Row>
        <Button
          isDisabled={![...coded.values()].some(({ grades }) => grades !== null)}
          onPress={() => codes.hold() && void navigate('../choose')}
        >
          Lock the table’s grades
        </Button>
        {codes.placeRods && (
          <>
            <Button onPress={codes.placeRods}>Put each rod on its own pin</Button>
            <Quiet>Put each rod on a pin, or let the program place them.</Quiet>
          </>
        )}
        {lacking.length > 0 && (
          <p role="alert">
            Not in this engine’s stock: {lacking.join(', ')}.{' '}
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
