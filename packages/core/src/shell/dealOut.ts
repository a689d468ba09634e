/**
 * Deals a number of alike things out of several stocks: those on hand first; of them the smallest stock that does, so that fewest part numbers
 * are used and fewest are left over; where none does alone, the largest first. Common practice: it decides between equals only.
 *
 * @param stocks how many there are of each; Infinity: as many as wanted
 * @param wanted a whole number
 * @returns how many of each, in the order of the stocks; less than wanted in all where there are too few
 * Of stocks of 1, 6 and 4, four are taken from the third; of 1, 2 and 2, three are taken as 2 and 1.
 */
export function dealOut(stocks: readonly number[], wanted: number): number[] {
  const dealt = stocks.map(() => 0);
  let left = wanted;
  while (left > 0) {
    let best = -1;
    stocks.forEach((stock, at) => {
      if (dealt[at]! > 0 || stock < 1) return;
      if (best < 0 || isBetter(stock, stocks[best]!, left)) best = at;
    });
    if (best < 0) break;
    dealt[best] = Math.min(stocks[best]!, left);
    left -= dealt[best]!;
  }
  return dealt;
}

/** True if a stock is taken before another while so many are wanted. */
function isBetter(stock: number, other: number, left: number): boolean {
  const isOnHand = stock < Number.POSITIVE_INFINITY;
  if (isOnHand !== other < Number.POSITIVE_INFINITY) return isOnHand;
  const does = stock >= left;
  if (does !== other >= left) return does;
  return does ? stock < other : stock > other;
}
