import type { CrankLayout } from './crankLayout.js';

/**
 * The throws of a shaft's pins as one writes them, front to rear.
 *
 * @example throwsText(usualLayout(5, 8, 2, 5).layout) // '0, 90, 270, 180'
 */
export function throwsText(layout: CrankLayout): string {
  return layout.pins.map(({ angle }) => angle).join(', ');
}

/**
 * Reads throws as they are written: one angle a pin, front to rear, degrees clockwise from the top seen from the front,
 * 0 up to but not including 360, separated by commas, semicolons or blanks.
 *
 * @returns the layout with these throws, or what is wrong with the text
 * @example withThrows(usualLayout(3, 2, 1, 2).layout, '0 360').message // '“360” is not an angle; enter 0 or more, below 360 degrees.'
 */
export function withThrows(
  layout: CrankLayout,
  text: string,
): { ok: true; layout: CrankLayout } | { ok: false; message: string } {
  const parts = text.split(/[,;\s°]+/u).filter((part) => part !== '');
  const wrong = parts.find((part) => !/^\d+(\.\d+)?$/u.test(part) || Number(part) >= 360);
  if (wrong !== undefined)
    return { ok: false, message: `“${wrong}” is not an angle; enter 0 or more, below 360 degrees.` };
  if (parts.length !== layout.pins.length) {
    return {
      ok: false,
      message: `${layout.pins.length} pins, but ${parts.length} angles; enter one per pin.`,
    };
  }
  return {
    ok: true,
    layout: { ...layout, pins: layout.pins.map((pin, at) => ({ ...pin, angle: Number(parts[at]) })) },
  };
}
