/** A page of a list holds at most so many bytes as they are stored, compressed: some MB as text. What is left comes with the next page. */
const MOST_BYTES = 256_000;

/**
 * SQL for the rows of a page as long as they hold no more together than an answer may; the first in any case. Each tells as `there` how many
 * the page has in all.
 *
 * @param page SQL of the page, in its order
 * @param held SQL of the column that may be large
 * @param order SQL of its order
 */
export function withinBytes(page: string, held: string, order: string): string {
  const size = `coalesce(pg_column_size(${held}), 0)`;
  return `
    SELECT * FROM (
      SELECT page.*, (count(*) OVER ())::int AS "there",
        sum(${size}) OVER (ORDER BY ${order} ROWS UNBOUNDED PRECEDING) - ${size} AS "above"
      FROM (${page}) AS page
    ) AS fitting
    WHERE "above" < ${MOST_BYTES} ORDER BY ${order}`;
}
