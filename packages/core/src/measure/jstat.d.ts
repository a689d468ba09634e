/** What is used of the package, which ships without types. */
declare module 'jstat' {
  const jstat: {
    readonly centralF: {
      cdf(value: number, above: number, below: number): number;
      inv(chance: number, above: number, below: number): number;
    };
    readonly studentt: {
      cdf(value: number, freedom: number): number;
      inv(chance: number, freedom: number): number;
    };
    readonly chisquare: { inv(chance: number, freedom: number): number };
  };
  export default jstat;
}
