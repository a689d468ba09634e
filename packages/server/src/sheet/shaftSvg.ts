import { type CrankLayout, shaftGeometry } from '@fettle/core';

const METAL = 'fill="#e6e6e6" stroke="#222222" stroke-width="1.2"';

/** The shaft of a sheet as SVG, for paper: black and grey, the thrust main with its washers in black. */
export function shaftSvg(layout: CrankLayout, width: number, height: number): string {
  const shaft = shaftGeometry(layout, width, height);
  const rect = ({ x, y, width: w, height: h }: { x: number; y: number; width: number; height: number }, more = METAL) =>
    `<rect x="${x.toFixed(1)}" y="${y.toFixed(1)}" width="${w.toFixed(1)}" height="${h.toFixed(1)}" ${more}/>`;
  const washers = shaft.mains.flatMap((main) =>
    main.isThrust
      ? [main.x - 6, main.x + main.width + 1].map((x) =>
          rect({ x, y: main.y - 5, width: 5, height: main.height + 10 }, 'fill="#222222"'),
        )
      : [],
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">`,
    `<line x1="0" x2="${width}" y1="${shaft.axis}" y2="${shaft.axis}" stroke="#666666" stroke-width="0.8" stroke-dasharray="12 4 2 4"/>`,
    rect(shaft.nose),
    rect(shaft.flange),
    ...shaft.pins.toSorted((one, other) => one.depth - other.depth).map((pin) => rect(pin)),
    ...shaft.webs.map((web) => rect(web)),
    ...washers,
    ...shaft.mains.map((main) => rect(main)),
    '</svg>',
  ].join('');
}
