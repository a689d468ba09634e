import type { Highs } from 'highs';
import { hasEnded, type IntegerSolver, secondsLeft, spend } from './choiceLimits.js';
import type { IntegerAnswer } from './integerProgramme.js';

/** By how much a whole number may miss being whole: times any deviation in µm it is far below a nanometre. */
const TOLERANCE = 1e-7;
/** A call never runs longer, whatever its caller allows, seconds. */
const LONGEST_S = 3_600;
/** Steps of work (see `WorkMeter`) of a call, of a branching, and of an iteration of its simplex. */
const STEPS_OF_A_CALL = 5_000_000;
const STEPS_OF_A_NODE = 1_000_000;
const STEPS_OF_AN_ITERATION = 20_000;
/** What `primal_solution_status` says of a point that keeps every row. */
const FEASIBLE = 2;

/**
 * HiGHS (npm `highs`) as the integer solver. It is interrupted at its own checkpoints once the caller wants an answer, and gets
 * the time left as its own limit.
 *
 * @param highs its loaded WebAssembly module
 */
export function integerSolverOf(highs: Highs): IntegerSolver {
  const { modelStatus, callbackType } = highs.constants;
  return ({ programme, gap, nodes }, limits = {}) => {
    const { cost, lower, upper, isWhole, rowLower, rowUpper, start, column, times } = programme;
    const shape = { numCols: cost.length, numRows: rowLower.length };
    const source = {
      ...shape,
      colCost: cost,
      colLower: lower,
      colUpper: upper,
      rowLower,
      rowUpper,
      integrality: isWhole,
      matrix: { ...shape, format: 'csr' as const, starts: start, indices: column, values: times },
    };
    return highs.withModel(source, (model): IntegerAnswer => {
      model.options.set({
        output_flag: false,
        mip_rel_gap: 0,
        mip_abs_gap: gap,
        mip_max_nodes: Math.min(
          nodes,
          Math.max(1, Math.ceil((limits.work?.left ?? Number.POSITIVE_INFINITY) / STEPS_OF_A_NODE)),
        ),
        mip_feasibility_tolerance: TOLERANCE,
        time_limit: Math.min(secondsLeft(limits), LONGEST_S),
      });
      const ask = (event: { interrupt(): void }) => {
        if (hasEnded(limits)) event.interrupt();
        return undefined;
      };
      const ended = model.run({ [callbackType.mipInterrupt]: ask, [callbackType.simplexInterrupt]: ask });
      spend(limits, STEPS_OF_A_CALL + STEPS_OF_AN_ITERATION * Number(model.info.get('simplex_iteration_count')));
      if (ended.modelStatus === modelStatus.infeasible) return { status: 'infeasible' };
      const bound = Number(model.info.get('mip_dual_bound'));
      if (Number(model.info.get('primal_solution_status')) !== FEASIBLE) return { status: 'unknown', bound };
      return {
        status: ended.modelStatus === modelStatus.optimal ? 'optimal' : 'stopped',
        bound,
        counts: Int32Array.from(model.getSolution().colValue, Math.round),
      };
    });
  };
}
