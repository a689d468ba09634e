import { type Built, FACE_SCHOOLS, FACE_WORDS, thrustKindOf } from '@fettle/core';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { AssemblyWork } from './useAssembly.js';

const NOT_SAID = { value: '', label: 'not set' } as const;
const YES_NO = [NOT_SAID, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }] as const;
const GROOVED = [
  NOT_SAID,
  { value: 'upper', label: 'the upper shell' },
  { value: 'lower', label: 'the lower shell' },
  { value: 'both', label: 'both shells' },
  { value: 'none', label: 'neither' },
] as const;
const CAPS = [
  NOT_SAID,
  { value: 'numbers', label: 'numbers' },
  { value: 'arrows', label: 'arrows' },
  { value: 'both', label: 'numbers and arrows' },
  { value: 'none', label: 'nothing' },
] as const;

const WASHER_LUGS = [
  NOT_SAID,
  { value: 'lower', label: 'the lower washers, in the cap' },
  { value: 'upper', label: 'the upper washers, in the block' },
  { value: 'both', label: 'both shells' },
  { value: 'none', label: 'neither' },
] as const;

/** What this engine has, which says what its checks are. */
export function BuiltPanel({ work }: { work: AssemblyWork }) {
  const { document, setBuilt } = work;
  const { built } = document.assembly;
  const said = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no');
  const yesNo = (key: 'lugs' | 'dowels' | 'boltCovers', label: string) => (
    <Choice
      label={label}
      value={said(built[key])}
      options={YES_NO}
      onChange={(value) => setBuilt({ [key]: value === '' ? null : value === 'yes' })}
    />
  );
  return (
    <Fold>
      <summary>What this engine has</summary>
      <FieldPairs>
        <Choice
          label="Oil groove of the mains in"
          value={built.grooved ?? ''}
          options={GROOVED}
          onChange={(value) => setBuilt({ grooved: value === '' ? null : (value as Built['grooved']) })}
        />
        <Choice
          label="Caps are marked with"
          value={built.caps ?? ''}
          options={CAPS}
          onChange={(value) => setBuilt({ caps: value === '' ? null : (value as Built['caps']) })}
        />
        {thrustKindOf(document) === 'washers' && (
          <Choice
            label="Thrust washers with lugs"
            value={built.washerLugs ?? ''}
            options={WASHER_LUGS}
            onChange={(value) => setBuilt({ washerLugs: value === '' ? null : value })}
          />
        )}
        {yesNo('lugs', 'Shells have lugs')}
        {yesNo('dowels', 'There are dowels')}
        {document.withRods && yesNo('boltCovers', 'Rod bolts protrude')}
      </FieldPairs>
      <Quiet>Checks that do not apply are hidden; unset ones show.</Quiet>
    </Fold>
  );
}

/** The lubricant of the running faces, by what happens to the engine next. */
export function FacePanel({ work }: { work: AssemblyWork }) {
  const { job, document, setFace } = work;
  const { face } = document.assembly;
  const name = useKeptText({ of: job.id, part: 'assembly', field: 'face' }, face.name);
  return (
    <>
      <Choice
        label="Running faces lubricated with"
        value={face.school ?? ''}
        options={[
          { value: '', label: 'not set' },
          ...FACE_SCHOOLS.map((value) => ({ value, label: `${FACE_WORDS[value].name}: ${FACE_WORDS[value].why}` })),
        ]}
        onChange={(value) => setFace({ school: FACE_SCHOOLS.find((one) => one === value) ?? null })}
      />
      <Field
        label="Which one"
        value={name.text}
        maxLength={60}
        onChange={name.setText}
        isLeftOver={name.isLeftOver}
        onBlur={() => {
          name.settled(name.text.trim());
          if (name.text.trim() !== face.name) setFace({ name: name.text.trim() });
        }}
      />
    </>
  );
}
