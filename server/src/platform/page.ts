import { applyDecorators, createParamDecorator, type ExecutionContext } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import type { Request } from 'express';
import { num, one, rows, type Tx } from './database/tx.js';
import { wholeOf } from './query.js';

/** Which rows of a list are asked for. */
export interface Window {
  from: number;
  limit: number;
}
/** Some rows of a list, and how many it has: exactly up to `MOST_COUNTED`, one more than that where there are more. */
export interface Page<T> {
  rows: T[];
  total: number;
}

const USUAL = 200;
const MOST_ROWS = 1_000;
/** Beyond this nobody wants to know how many, and counting would take longer than reading. */
export const MOST_COUNTED = 10_000;

/** The window that `?from=&limit=` name. */
export const AskedWindow = createParamDecorator((_: unknown, context: ExecutionContext): Window => {
  const { query } = context.switchToHttp().getRequest<Request>();
  return { from: wholeOf(query['from'], 0), limit: wholeOf(query['limit'], USUAL, 1, MOST_ROWS) };
});

/** Says in the API's document that a list comes in windows. */
export const Windowed = () =>
  applyDecorators(ApiQuery({ name: 'from', required: false, type: String }), ApiQuery({ name: 'limit', required: false, type: String }));

/** What a list is read from: everything from FROM to the last condition (and GROUP BY), and the order of its rows. */
export interface Listed {
  select: string;
  from: string;
  params: readonly unknown[];
  order: string;
}

/** A window of a list, with how many rows it has in all. */
export async function pageOf<T extends object>(source: Pick<Tx, 'query'>, list: Listed, { from, limit }: Window): Promise<Page<T>> {
  const found = await rows<T>(source, `SELECT ${list.select} ${list.from} ORDER BY ${list.order} LIMIT ? OFFSET ?`, [
    ...list.params,
    limit,
    from,
  ]);
  // Whoever sees the end of a list has counted it.
  if (found.length < limit && (found.length > 0 || from === 0)) return { rows: found, total: from + found.length };
  return { rows: found, total: await countOf(source, list) };
}

/** How many rows a list has, up to one more than anybody wants counted. */
export async function countOf(source: Pick<Tx, 'query'>, { from, params }: Pick<Listed, 'from' | 'params'>): Promise<number> {
  const counted = await one<{ n: string }>(source, `SELECT COUNT(*) AS n FROM (SELECT 1 ${from} LIMIT ${MOST_COUNTED + 1}) c`, [...params]);
  return num(counted?.n);
}

/** All rows of a list that is read a batch of ids at a time, each made into what it shows; memory is bounded whatever its length. */
export async function* batches<T>(
  idsAfter: (after: number) => Promise<{ id: number }[]>,
  rowsOf: (ids: readonly { id: number }[]) => Promise<T[]>,
): AsyncGenerator<T> {
  for (let after = 0; ;) {
    const ids = await idsAfter(after);
    const last = ids.at(-1);
    if (!last) return;
    yield* await rowsOf(ids);
    after = last.id;
  }
}

/** The same window of rows that were made into others. */
export const mapPage = <A, B>(page: Page<A>, to: (row: A) => B): Page<B> => ({ rows: page.rows.map(to), total: page.total });
