import { expect, it } from 'vitest';
import { isLengthPlace } from './isLengthPlace.js';

it.each([
  '/limits/mainBore/low',
  '/mainLimits/3/mainBore/high',
  '/rules/maxWallStep',
  '/rules/maxSpread',
  '/rules/aim/clearance',
  '/rules/extras/M1',
  '/measuring/uncertainty',
  '/measuring/alongLine',
  '/measuring/setting/pin',
  '/endPlay/aim',
  '/endPlay/fitted/front',
  '/endPlay/maxShift',
  '/endPlay/alikeWithin',
  '/endPlay/repeatWithin',
  '/endPlay/settle',
  '/endPlay/readings/a/nm',
  '/endPlay/choice/predicted',
  '/endPlay/choice/chosen/0/thickness',
  '/crush/aimAluminium',
  '/crush/alikeWithin',
  '/crush/joints/M1/left/go',
  '/crush/joints/M1/right/otherNoGo',
  '/crush/joints/M1/left/shim',
  '/crush/joints/M1/clearance',
  '/shells/a/wall',
  '/shells/a/width',
  '/shells/a/band/low',
  '/pieces/a/thickness',
  '/pieces/a/leaf',
])('%s is a length', (path) => {
  expect(isLengthPlace(path.split('/').slice(1))).toBe(true);
});

it.each([
  '/name',
  '/rules/tightWeight',
  '/rules/closeFraction',
  '/rules/aim',
  '/rules/aim/kind',
  '/measuring/celsius/pin',
  '/measuring/gaugeCelsius',
  '/endPlay/weight',
  '/endPlay/counts/0',
  '/endPlay/choice/chosen/0/count',
  '/shells/a/stock',
  '/layout/mains',
  '/nowhere',
  '/constructor',
  '/rules/constructor',
  '/measuring/setting/toString',
])('%s is none', (path) => {
  expect(isLengthPlace(path.split('/').slice(1))).toBe(false);
});
