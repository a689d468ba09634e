import { FAMILY_TABLE, familiesOf, type JobDocument, shellsOfSheet } from '@fettle/core';
import { useNavigate } from 'react-router';
import { newId } from '../base/newId.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';

/** The grades that the data sheet knows and the engine does not have yet, standard and undersizes. */
function openGrades(document: JobDocument) {
  const { sheet, withRods } = document;
  if (!sheet) return [];
  return familiesOf({ withRods }).flatMap((family) =>
    [null, ...sheet[family].undersizes.map(({ name }) => name)].flatMap((undersize) => {
      const known = Object.values(document.shells).some(
        (shell) => shell.family === family && (shell.undersize ?? null) === undersize,
      );
      const shells = known ? [] : shellsOfSheet(sheet, family, undersize);
      return shells.length > 0 ? [{ family, undersize, shells }] : [];
    }),
  );
}

/** What the data sheet brings to the drawer: its grades with their walls as bands, and what to order. */
export function SheetPanel({ job }: { readonly job: OpenJob }) {
  const change = useChangeDocument(job);
  const navigate = useNavigate();
  const { sheet } = job.document;
  if (!sheet) return null;
  return (
    <Panel aria-label="From the data sheet">
      <PanelTitle>From the data sheet</PanelTitle>
      <Quiet>
        Grades of {sheet.name} can be selected before they are bought; their walls are known by their bands until
        measured.
      </Quiet>
      <Row style={{ marginTop: '0.5rem' }}>
        {openGrades(job.document).map(({ family, undersize, shells }) => (
          <Button
            key={`${family} ${undersize}`}
            onPress={() =>
              change((old) => ({
                ...old,
                shells: { ...old.shells, ...Object.fromEntries(shells.map((shell) => [newId(), shell])) },
              }))
            }
          >
            Add its {undersize === null ? 'standard' : `${undersize} under`} grades for the {FAMILY_TABLE[family].words}
          </Button>
        ))}
        <Button onPress={() => navigate('../order')}>What to order for this engine</Button>
      </Row>
    </Panel>
  );
}
