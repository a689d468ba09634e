import { type FitOptions, fit } from './fit.js';
import type { FitRequest } from './fitRequest.js';

/** What one more set of a grade, an upper and a lower half, would save. */
export interface SetSaving {
  /** The shells of the set; one alone where it fits either side. */
  readonly shells: readonly string[];
  /** µm², above zero. */
  readonly saving: number;
}

/**
 * What one more set of each grade would save: the same wall above and below, of one family and series. A single half more often
 * saves nothing, because a station takes two; this is what is bought. Solves once for each grade.
 *
 * @param cost of the best plan as it is, µm²
 * @returns the greatest saving first; nothing for sets that would save nothing
 */
export function setSavings(request: FitRequest, cost: number, options: FitOptions = {}): SetSaving[] {
  const sets = new Map<string, string[]>();
  for (const { id, family, series, wall, stock } of request.shells) {
    if (stock === null) continue;
    const key = JSON.stringify([family, series, wall]);
    sets.set(key, [...(sets.get(key) ?? []), id]);
  }
  return [...sets.values()]
    .flatMap((ids): SetSaving[] => {
      const shells = request.shells.map((shell) =>
        ids.includes(shell.id) ? { ...shell, stock: shell.stock! + (shell.half === 'either' ? 2 : 1) } : shell,
      );
      const more = fit({ ...request, shells }, { ...options, explain: false });
      const saving = more.cost === null ? 0 : cost - more.cost;
      return saving > 0 ? [{ shells: ids, saving }] : [];
    })
    .sort((a, b) => b.saving - a.saving);
}
