import { FAMILY_TABLE } from '../part/family.js';
import { partName } from '../part/feature.js';
import { boltOrder } from './boltOrder.js';
import { type FastenerPlace, PLACE_TABLE } from './fastener.js';

/** One bolt of a cap or of a rod. */
export interface Bolt {
  /** `main-inner/3/left/1`: place, number of the main, side, row from the front; `rod/2/1`: place, number of the rod, which of its bolts. */
  readonly id: string;
  /** What it is called: `M3 inner left`, `R2 bolt 1`. */
  readonly name: string;
}

/**
 * The bolts of one rod, or of one place of all main caps from the front back.
 *
 * @param mains how many mains the engine has
 * @param rod number of the rod; null for the mains
 * @param perCap how many bolts of the place hold a cap, 1 to 4
 * @example boltsOf('rod', { mains: 5, rod: 2, perCap: 2 }).map(({ id }) => id) // ['rod/2/1', 'rod/2/2']
 */
export function boltsOf(
  place: FastenerPlace,
  { mains, rod, perCap }: { readonly mains: number; readonly rod: number | null; readonly perCap: number },
): Bolt[] {
  const ids =
    rod === null
      ? boltOrder(mains, perCap)
          .toSorted((one, other) => one.main - other.main)
          .map(({ main, side, row }) => [place, main, side, row].join('/'))
      : Array.from({ length: perCap }, (_, at) => [place, rod, at + 1].join('/'));
  return ids.map((id) => ({ id, name: boltName(id) }));
}

/**
 * What a bolt is called, by its id; the id itself where it is none of a bolt.
 *
 * @example boltName('main-inner/3/left/2') // 'M3 inner left 2'
 */
export function boltName(id: string): string {
  const [place = '', number = '', ...where] = id.split('/');
  const family = Object.hasOwn(PLACE_TABLE, place) ? PLACE_TABLE[place as FastenerPlace].family : null;
  if (family === null) return id;
  if (FAMILY_TABLE[family].housingsMove) return `${partName('bigEnd', Number(number))} bolt ${where.join(' ')}`;
  const [side = '', row = '1'] = where;
  return [partName('mainBore', Number(number)), place.replace('main-', ''), side, ...(row === '1' ? [] : [row])].join(
    ' ',
  );
}

/**
 * The id of a bolt that was kept by its name: `R2 bolt 1`, `M3 inner left`, `M3 inner left 2`.
 *
 * @returns the name as it is where it is none of a bolt
 */
export function boltOfName(name: string): string {
  const ofRod = /^R(\d+) bolt (\d+)$/u.exec(name);
  if (ofRod) return `rod/${ofRod[1]}/${ofRod[2]}`;
  const ofMain = /^M(\d+) (inner|outer|side) (left|right)(?: (\d+))?$/u.exec(name);
  return ofMain ? `main-${ofMain[2]}/${ofMain[1]}/${ofMain[3]}/${ofMain[4] ?? '1'}` : name;
}
