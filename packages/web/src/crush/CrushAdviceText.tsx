import { type CrushAdvice, crushAdvice, lengthText, saddleAdvice, type Unit } from '@fettle/core';
import { PassesTable } from '../endPlay/PassesTable.js';
import { useClearances } from '../person/useClearances.js';
import { Notice } from '../ui/Notice.js';
import type { CrushWork } from './useCrush.js';

/** What brings white metal to its target, side by side; a verdict where the shims do not reach. */
function SaddleText({ work }: { work: CrushWork }) {
  const { document, limits, joint, aim } = work;
  const { shown } = useClearances(document.unit);
  const advice = limits && saddleAdvice(joint, limits, aim);
  if (!advice) return null;
  const text = (value: number) => lengthText(Math.abs(value), shown);
  const { eachSide, left, right, fromFaces } = advice;
  if (eachSide === 0) return <p>On target: leave the shims as they are.</p>;
  return (
    <>
      <p>
        To reach the target, {eachSide < 0 ? 'take' : 'put'} <strong className="figure">{text(eachSide)}</strong>{' '}
        {eachSide < 0 ? 'from' : 'into'} each side
        {left !== null &&
          right !== null &&
          fromFaces === 0 &&
          `, which leaves ${text(left)} of shim at the left and ${text(right)} at the right`}
      </p>
      {fromFaces > 0 && (
        <Notice>
          Shims are not enough: with all of them out, {text(fromFaces)} more must come off the joint faces of the cap,
          if the engine maker allows it; otherwise remetal the bearing.
        </Notice>
      )}
    </>
  );
}

/** What brings the crush to its target: a plan of dressing, thicker shims, or what to look for at plain shells. */
function CrushText({ advice, unit }: { readonly advice: CrushAdvice; readonly unit: Unit }) {
  const { shown } = useClearances(unit);
  const total = <strong className="figure">{lengthText(advice.total, shown)}</strong>;
  switch (advice.kind) {
    case 'dress':
      return (
        <>
          <p>
            Dress the shims: {total} in all, half from each side, on a flat plate. Measure the crush after each pass.
          </p>
          <PassesTable
            label="Dressing plan"
            off="Off each shim"
            unit={unit}
            passes={advice.passes.map(({ perSide, expected }) => ({ off: perSide, expected }))}
          />
        </>
      );
    case 'beyond-shims':
      return (
        <Notice>
          {total} would come off, which is more than the shims have. Fit other shells, or read the bore again.
        </Notice>
      );
    case 'thicker':
      return <p>Fit shims {total} thicker in all, half of it at each side.</p>;
    case 'shells':
      return (
        <Notice>
          {total} {advice.way === 'too-much' ? 'over' : 'under'} the target.{' '}
          {advice.way === 'too-much'
            ? 'Too much crush buckles the shell. Read the bore again with the cap torqued, then try other shells. File no joint face unless the engine maker says so.'
            : 'With too little crush the shell can turn and cannot pass its heat on. Read the bore again, then try other shells; if the bore is too big, have it machined.'}
        </Notice>
      );
  }
}

export function Advice({ work }: { work: CrushWork }) {
  const { document, limits, place, joint, aim } = work;
  if (!place || limits === null) return null;
  if (place.kind === 'saddle') return <SaddleText work={work} />;
  const advice = crushAdvice(joint, place.kind, limits, aim, document.unit);
  return advice && <CrushText advice={advice} unit={document.unit} />;
}
