import { FAMILY_TABLE } from '../../part/family.js';
import { type Found, remedy, type Trouble } from './trouble.js';

/** Held or forbidden choices, each let go alone. */
export function releases({ model }: Trouble): Found {
  return [...model.wishes.keys()].map((at) => {
    const { id, name } = model.stations[at]!;
    return remedy('release', `Remove locks and exclusions at ${name}.`, { stations: [id] });
  });
}

/** Rods that belong to a pin, each let go to any pin. */
export function rodsMoved({ model, group }: Trouble): Found {
  const engines = new Set(group.map((at) => model.stations[at]!.engine));
  return model.housings.flatMap((housing) => {
    if (!FAMILY_TABLE[housing.family].housingsMove || housing.station === null || !engines.has(housing.engine))
      return [];
    const left = model.stations.find(({ id }) => id === housing.station)!;
    return [
      remedy('move-rod', `Let rod ${housing.name} leave ${left.name}.`, {
        stations: [left.id],
        housings: [housing.id],
      }),
    ];
  });
}
