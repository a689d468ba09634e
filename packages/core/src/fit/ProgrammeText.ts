import { COST_PER_UM2 } from './fitModel.js';

/** An integer programme being written in LP format: counts of ways to serve stations, sharing the stock. */
export class ProgrammeText {
  private readonly objective: string[] = [];
  private readonly rows: string[] = [];
  private readonly bounds: string[] = [];
  private readonly whole: string[] = [];
  private readonly uses = new Map<number, string[]>();

  /** A whole number from 0 to `most` that costs so many cost units each. @returns its name */
  count(cost: number, most: number): string {
    const name = `x${this.whole.length}`;
    this.whole.push(name);
    this.bounds.push(` 0 <= ${name} <= ${most}`);
    if (cost > 0) this.objective.push(`${cost / COST_PER_UM2} ${name}`);
    return name;
  }

  /** A number that may take any value. */
  free(name: string): void {
    this.bounds.push(` ${name} free`);
  }

  /** Each of the counted takes so many of a resource; −1 is none. */
  take(resource: number, times: number, name: string): void {
    if (resource < 0) return;
    const term = times > 1 ? `${times} ${name}` : name;
    const terms = this.uses.get(resource);
    if (terms) terms.push(term);
    else this.uses.set(resource, [term]);
  }

  row(text: string): void {
    this.rows.push(text);
  }

  /** The whole programme, the stock as its last rows. */
  text(capacity: Float64Array): string {
    const stock = [...this.uses].map(([resource, terms]) => `${terms.join(' + ')} <= ${capacity[resource]}`);
    return [
      'Minimize',
      ` obj: ${this.objective.join(' + ') || `0 ${this.whole[0]}`}`,
      'Subject To',
      ...[...this.rows, ...stock].map((row, at) => ` c${at}: ${row}`),
      'Bounds',
      ...this.bounds,
      'General',
      ` ${this.whole.join(' ')}`,
      'End',
    ].join('\n');
  }
}
