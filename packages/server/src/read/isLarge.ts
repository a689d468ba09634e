/** A value with more members than this takes longer to check than a worker thread to be told of it. */
const MOST_MEMBERS = 4000;

function countIn(value: unknown, left: number): number {
  if (left <= 0 || typeof value !== 'object' || value === null) return left;
  let rest = left;
  for (const member of Object.values(value)) {
    rest = countIn(member, rest - 1);
    if (rest <= 0) break;
  }
  return rest;
}

/** True if a JSON value is so large that checking it would hold others up; no more of it is looked at than it takes to tell. */
export function isLarge(value: unknown): boolean {
  return countIn(value, MOST_MEMBERS) <= 0;
}
