import { ANY_WALL, type DrawerHalf, FAMILY_TABLE, readPlaces, type Unit } from '@fettle/core';
import { LengthField } from '../typing/LengthField.js';
import { Pairs } from './Pairs.js';
import { ShelfFacts, TextField } from './ShelfFacts.js';

interface HalfFactsProps {
  readonly id: string;
  readonly half: DrawerHalf;
  readonly label: string;
  readonly unit: Unit;
  readonly change: (part: Partial<DrawerHalf>) => Promise<boolean>;
}

/** What is known of a kind of half beside how many there are. */
export function HalfFacts({ id, half, label, unit, change }: HalfFactsProps) {
  return (
    <Pairs>
      <ShelfFacts
        id={id}
        part="half"
        item={half}
        findingsLabel="Found on receipt, such as an oil hole half covered"
        change={change}
      />
      {(['grade', 'series'] as const).map((field) => (
        <TextField
          key={field}
          line={id}
          part="half"
          field={field}
          label={field === 'grade' ? 'Grade' : 'Series'}
          value={half[field]}
          most={field === 'grade' ? 40 : 60}
          check={(text) => (text === '' ? 'Needed here.' : null)}
          onCommit={(text) => change({ [field]: text })}
        />
      ))}
      <TextField
        line={id}
        part="half"
        field="undersize"
        label="Undersize, if any"
        value={half.undersize ?? ''}
        most={20}
        onCommit={(text) => change({ undersize: text === '' ? undefined : text })}
      />
      {FAMILY_TABLE[half.family].isInLine && (
        <TextField
          line={id}
          part="half"
          field="places"
          label="Only for position, blank for every main"
          value={half.positions?.join(', ') ?? ''}
          most={200}
          check={(text) => {
            const read = readPlaces(text);
            return read.ok ? null : read.message;
          }}
          onCommit={async (text) => {
            const read = readPlaces(text);
            return read.ok && (await change({ positions: read.positions }));
          }}
        />
      )}
      {half.number === undefined && (
        <div className="whole">
          <LengthField
            key={`${id} wall`}
            kept={{ of: id, part: 'half', field: 'wall' }}
            label={`Wall of ${label}, ${unit}`}
            unit={unit}
            value={half.wall}
            optional={false}
            span={ANY_WALL}
            check={(value) => (value > 0 ? null : 'Enter a wall above 0.')}
            onCommit={(value) => value !== null && void change({ wall: value, band: undefined })}
          />
        </div>
      )}
    </Pairs>
  );
}
