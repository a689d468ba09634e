import { type JobDocument, throwsText, withThrows } from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { JOINT_OPTIONS, MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { USES } from './AimFields.js';
import { Pairs } from './Pairs.js';

export function EngineFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
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
