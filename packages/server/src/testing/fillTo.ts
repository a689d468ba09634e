import type { DataSource } from 'typeorm';

/** Fills the benches with copies of the demo's engines, readings included, each touched a second after the one before. */
export async function fillTo(database: DataSource, wanted: number): Promise<void> {
  const [{ count }]: [{ count: number }] = await database.query(
    'SELECT count(*)::int AS count FROM job WHERE deleted_at IS NULL',
  );
  await database.query(
    `CREATE TEMP TABLE made AS
     SELECT gen_random_uuid() AS id, pattern.id AS pattern, number
     FROM generate_series(1, $1) AS number
     JOIN (SELECT id, row_number() OVER (ORDER BY id) AS place, count(*) OVER () AS all FROM job) AS pattern
       ON pattern.place = number % pattern.all + 1`,
    [wanted - count],
  );
  await database.query(
    `INSERT INTO job SELECT made.id, job.version, job.revision, job.document, job.created_at, job.created_by,
       job.updated_at + number * interval '1 second', job.updated_by, NULL,
       job.name || ' ' || number, job.unit, job.mains, job.rods, NULL, NULL
     FROM made JOIN job ON job.id = made.pattern`,
  );
  await database.query(
    `INSERT INTO reading SELECT gen_random_uuid(), made.id, feature, station, slot, text, unit, setting, nm, NULL, NULL, by, at, received_at
     FROM made JOIN reading ON reading.job_id = made.pattern WHERE reading.replaced_by IS NULL`,
  );
  await database.query('DROP TABLE made');
  await database.query('ANALYZE');
}
