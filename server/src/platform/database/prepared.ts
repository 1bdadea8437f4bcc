import type { Tx } from './tx.js';

type Asks = Pick<Tx, 'query'>;

/** More values than these are bound to vary in number, and a statement of its own for each number would push out the others. */
const MOST_VALUES = 100;
/** Texts of one statement each; more of them than a house's modules have would mean that something of a request is in one. */
const MOST_TEXTS = 2_000;

const texts = new Set<string>();

/**
 * Asks what the database reads and plans once for each connection, and from then on only carries out: the same work in two thirds to
 * four fifths of its time. For statements whose text is one of few, and that do not reckon with the numbers they are given:
 * these go as text, which no limit takes for a number and no sum for an exact one. Throws as `tx.query` does.
 */
export function prepared<T>(tx: Asks, sql: string, params: readonly unknown[]): Promise<T> {
  if (params.length <= MOST_VALUES && texts.size < MOST_TEXTS && !params.some(isList)) texts.add(sql);
  return tx.query<T>(sql, [...params]);
}

/** Whether a statement is one that connections prepare. */
export const isPrepared = (sql: string, params: unknown): boolean => texts.has(sql) && Array.isArray(params) && !params.some(isList);

/** A value as prepared statements send it: the driver would send numbers as floating ones, and its typed ones take it longer than the statement. */
export const sent = (value: unknown) => (typeof value === 'number' ? String(value) : (value ?? null));

/** A statement that is given rows of equal width: `before` ends with VALUES, and `after` is what follows them. */
export interface OfRows {
  before: string;
  given: readonly (readonly unknown[])[];
  after?: string;
}

/** More rows than these are bound to vary in number too. */
const FEW_ROWS = 8;

/** Carries out a statement about rows; it is prepared where they are few. */
export function preparedRows<T>(tx: Asks, statement: OfRows): Promise<T> {
  const { before, given, after = '' } = statement;
  if (given.length > FEW_ROWS) return tx.query<T>(`${before} ? ${after}`, [given]);
  return prepared<T>(tx, textOf(statement), given.flat());
}

/** How the text of statements that go together begins. */
export const BLOCK = 'BEGIN NOT ATOMIC';

/** Carries out statements about rows that return something, one after the other: in one trip where the rows are few. What each returns, in order. */
export async function preparedTogether(tx: Asks, statements: readonly OfRows[]): Promise<unknown[][]> {
  const values = statements.flatMap((s) => s.given.flat());
  if (values.length <= MOST_VALUES) {
    const text = `${BLOCK} ${statements.map(textOf).join('; ')}; END`;
    return (await prepared<unknown[][]>(tx, text, values)).slice(0, statements.length);
  }
  const answers: unknown[][] = [];
  for (const statement of statements) answers.push(await preparedRows(tx, statement));
  return answers;
}

const textOf = ({ before, given, after = '' }: OfRows) =>
  `${before} ${given.map((row) => `(${row.map(() => '?').join(', ')})`).join(', ')} ${after}`;

const isList = (value: unknown) => Array.isArray(value);
