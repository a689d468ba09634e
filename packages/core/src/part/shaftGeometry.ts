import type { CrankLayout } from './crankLayout.js';
import { type ShaftColumn, type ShaftShow, shaftColumns } from './shaftColumns.js';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface DrawnMain extends Box {
  readonly number: number;
  readonly isThrust: boolean;
}

export interface DrawnPin extends Box {
  readonly number: number;
  readonly angle: number;
  /** Nearer to the viewer than the shaft's axis (1) or behind it (−1), for the order of drawing. */
  readonly depth: number;
  /** Where two rods on one pin are told apart. */
  readonly split: number | null;
}

export interface ShaftGeometry {
  readonly axis: number;
  readonly mains: readonly DrawnMain[];
  readonly pins: readonly DrawnPin[];
  readonly webs: readonly (Box & { readonly depth: number })[];
  readonly nose: Box;
  readonly flange: Box;
}

/** Room at both ends for the nose and the flange where the mains have no columns, px. */
const END_ROOM = 22;

function mainCentres(
  layout: CrankLayout,
  show: ShaftShow,
  columns: readonly ShaftColumn[],
  column: number,
  mainWidth: number,
): number[] {
  const width = column * columns.length;
  return Array.from({ length: layout.mains }, (_, at) => {
    if (show !== 'rods') return (columns.findIndex(({ key }) => key === `M${at + 1}`) + 0.5) * column;
    const before = layout.pins.reduce((sum, { bay, rods }) => sum + (bay <= at ? rods : 0), 0);
    return Math.min(Math.max(before * column, mainWidth / 2 + END_ROOM), width - mainWidth / 2 - END_ROOM);
  });
}

/**
 * Side view of a crankshaft over its columns, the front at the left: each main centred over its own; where only the rods have
 * columns, the mains stand between them. A pin stands off the axis by the cosine of its throw; a pin at 90° lies on the axis,
 * in front of it.
 *
 * @param width of the columns together, px
 * @param height of the drawing, px
 */
export function shaftGeometry(
  layout: CrankLayout,
  width: number,
  height: number,
  show: ShaftShow = 'mains',
): ShaftGeometry {
  const columns = shaftColumns(layout, show);
  const column = width / columns.length;
  const axis = height / 2;
  const mainHeight = height * 0.3;
  const pinHeight = height * 0.24;
  const reach = height * 0.26;
  const mainWidth = Math.min(column * (show === 'rods' ? 0.2 : 0.34), 46);
  const centres = mainCentres(layout, show, columns, column, mainWidth);
  const centre = (main: number) => centres[main - 1]!;

  const mains = Array.from({ length: layout.mains }, (_, at) => ({
    number: at + 1,
    isThrust: layout.thrustMain === at + 1,
    x: centre(at + 1) - mainWidth / 2,
    y: axis - mainHeight / 2,
    width: mainWidth,
    height: mainHeight,
  }));

  const pins: DrawnPin[] = [];
  const webs: (Box & { depth: number })[] = [];
  const isOverhung = layout.mains === 1;
  for (let bay = 1; bay < Math.max(2, layout.mains); bay += 1) {
    const here = layout.pins.flatMap((pin, at) => (pin.bay === bay ? [{ pin, number: at + 1 }] : []));
    const from = centre(bay) + mainWidth / 2;
    const end = isOverhung ? width - END_ROOM : centre(bay + 1) - mainWidth / 2;
    const room = end - from;
    const webWidth = Math.min(room * 0.16, 14);
    const pinWidth = here.length > 0 ? (room - webWidth * (here.length + 1)) / here.length : 0;
    const yOf = (angle: number) => axis - reach * Math.cos((angle * Math.PI) / 180);
    for (let web = 0; web <= here.length; web += 1) {
      const beside = here.slice(Math.max(0, web - 1), web + 1).map(({ pin }) => yOf(pin.angle));
      const ends = [
        axis - mainHeight / 2,
        axis + mainHeight / 2,
        ...beside.flatMap((y) => [y - pinHeight * 0.68, y + pinHeight * 0.68]),
      ];
      const top = Math.min(...ends);
      webs.push({
        x: from + web * (webWidth + pinWidth),
        y: top,
        width: webWidth,
        height: Math.max(...ends) - top,
        depth: 0,
      });
    }
    here.forEach(({ pin, number }, at) => {
      const x = from + webWidth + at * (webWidth + pinWidth);
      pins.push({
        number,
        angle: pin.angle,
        depth: Math.sin((pin.angle * Math.PI) / 180),
        x,
        y: yOf(pin.angle) - pinHeight / 2,
        width: pinWidth,
        height: pinHeight,
        split: pin.rods === 2 ? x + pinWidth / 2 : null,
      });
    });
  }
  const noseEnd = centre(1) - mainWidth / 2;
  // The flywheel of a shaft with one main sits at its other end, where the nose is elsewhere.
  const flangeStart = isOverhung ? noseEnd - 18 : centre(layout.mains) + mainWidth / 2;
  const noseWidth = isOverhung ? 0 : Math.max(0, Math.min(noseEnd - 4, column * 0.28));
  return {
    axis,
    mains,
    pins,
    webs,
    nose: { x: noseEnd - noseWidth, y: axis - mainHeight * 0.32, width: noseWidth, height: mainHeight * 0.64 },
    flange: { x: flangeStart + 3, y: axis - mainHeight * 0.72, width: 12, height: mainHeight * 1.44 },
  };
}
