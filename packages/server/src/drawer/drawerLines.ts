import type { Answered, DrawerLine, PieceLine } from '@fettle/core';
import { drawerHalfSchema, isPiece, pieceLineSchema } from '@fettle/core';
import { type EntityManager, In } from 'typeorm';
import { grouped } from '../database/grouped.js';
import { type DrawerRow, drawerEntity } from '../stock/drawerEntity.js';

/** Lines that were changed, as the lists tell them. */
export type Moved = Answered<'moveDrawer'>;

/** Every kind of half with who has reserved how many. @param job an engine: what was fitted into it is told as well */
export async function drawerLines(manager: EntityManager, job: string | null): Promise<DrawerLine[]> {
  const held = await withHolders(manager, await rowsOf(manager, false), job);
  return held.map(({ item, ...line }) => ({ ...line, half: drawerHalfSchema.parse(item) }));
}

/** Every kind of washer, flanged half and shim, likewise. */
export async function pieceLines(manager: EntityManager, job: string | null): Promise<PieceLine[]> {
  const held = await withHolders(manager, await rowsOf(manager, true), job);
  return held.map(({ item, ...line }) => pieceLineSchema.parse({ ...line, piece: item }));
}

function rowsOf(manager: EntityManager, arePieces: boolean): Promise<DrawerRow[]> {
  return manager
    .createQueryBuilder(drawerEntity, 'line')
    .where(arePieces ? `line.item ? 'kind'` : `NOT line.item ? 'kind'`)
    .orderBy('line.id')
    .getMany();
}

/** Some lines as the lists tell them, and which of them are there no more: whoever has the lists need not read them whole. */
export async function movedLines(
  manager: EntityManager,
  ids: readonly string[],
  job: string | null = null,
): Promise<Moved> {
  const rows = await manager.find(drawerEntity, { where: { id: In([...ids]) }, order: { id: 'ASC' } });
  const lines: DrawerLine[] = [];
  const pieces: PieceLine[] = [];
  for (const { item, ...line } of await withHolders(manager, rows, job)) {
    if (isPiece(item)) pieces.push(pieceLineSchema.parse({ ...line, piece: item }));
    else lines.push({ ...line, half: drawerHalfSchema.parse(item) });
  }
  const there = new Set(rows.map(({ id }) => id));
  return { lines, pieces, gone: ids.filter((id) => !there.has(id)) };
}

/** One line of the drawer as its list tells it; null where it is not there. */
export async function lineTold(manager: EntityManager, id: string): Promise<DrawerLine | PieceLine | null> {
  const { lines, pieces } = await movedLines(manager, [id]);
  return lines[0] ?? pieces[0] ?? null;
}

/** Lines with who has reserved how many, by the engines' names. */
async function withHolders(manager: EntityManager, lines: readonly DrawerRow[], job: string | null) {
  const ids = lines.map(({ id }) => id);
  const reserved: { line: string; job: string; name: string; count: number }[] = await manager.query(
    `SELECT "line_id" AS "line", "job_id" AS "job", "job"."name", "count"
     FROM "reservation" JOIN "job" ON "job"."id" = "job_id"
     WHERE "state" = 'reserved' AND "line_id" = ANY($1) ORDER BY "job"."name", "job_id"`,
    [ids],
  );
  const used: { line: string; used: number; here: number }[] = await manager.query(
    `SELECT "line_id" AS "line", sum("count")::integer AS "used",
       coalesce(sum("count") FILTER (WHERE "job_id" = $2), 0)::integer AS "here"
     FROM "reservation" WHERE "state" = 'used' AND "line_id" = ANY($1) GROUP BY "line_id"`,
    [ids, job],
  );
  const byLine = grouped(reserved, ({ line }) => line);
  const usedOf = new Map(used.map((one) => [one.line, one]));
  return lines.map(({ id, version, item }) => ({
    id,
    version,
    item,
    reservations: (byLine.get(id) ?? []).map(({ line: _, ...one }) => one),
    used: usedOf.get(id)?.used ?? 0,
    fittedHere: usedOf.get(id)?.here ?? 0,
  }));
}
