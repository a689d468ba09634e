import { USUAL_CELSIUS_U } from '@fettle/core';
import { NumberField } from '../typing/NumberField.js';
import { WordsField } from '../typing/WordsField.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Panel } from '../ui/Panel.js';
import type { TrialWork } from './useTrial.js';

const MATERIALS = ['iron', 'aluminium', 'steel'] as const;

/** How warm the engine runs, and what its parts grow by: figures with their source, folded away. */
export function WarmPanel({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, setWarm } = work;
  const { warm } = document;
  return (
    <Panel aria-label="Running warm">
      <Fold>
        <summary>
          Running at {warm.celsius} °C; iron {warm.iron}, aluminium {warm.aluminium}, steel {warm.steel} · 10⁻⁶/K
        </summary>
        <FieldPairs>
          <NumberField
            kept={{ of: job, part: 'warm', field: 'celsius' }}
            label="Running temperature, °C"
            value={warm.celsius}
            most={300}
            onCommit={(celsius) => setWarm({ celsius })}
          />
          <NumberField
            kept={{ of: job, part: 'warm', field: 'u' }}
            label="A temperature is known to, u, °C"
            value={warm.u ?? USUAL_CELSIUS_U}
            most={20}
            onCommit={(u) => setWarm({ u })}
          />
          {MATERIALS.map((material) => (
            <NumberField
              key={material}
              kept={{ of: job, part: 'warm', field: material }}
              label={`Expansion of ${material}, 10⁻⁶/K`}
              value={warm[material]}
              most={50}
              onCommit={(alpha) => setWarm({ [material]: alpha })}
            />
          ))}
          <WordsField
            job={job}
            part="warm"
            field="source"
            label="Where these come from"
            value={warm.source}
            most={200}
            onCommit={(source) => setWarm({ source })}
          />
        </FieldPairs>
      </Fold>
    </Panel>
  );
}
