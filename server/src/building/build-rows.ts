import { find, notFound, type Row, rows, type Tx } from '../platform/index.js';

export type BuildRow = Row<'build'>;

/** An assembly by its code, held until the transaction ends. */
export async function buildOf(tx: Tx, code: string): Promise<BuildRow> {
  const [row] = await rows<BuildRow>(tx, 'SELECT * FROM build WHERE code = ? FOR UPDATE', [code.toUpperCase()]);
  if (!row) throw notFound(`Assembly ${code.slice(0, 20)}`);
  return row;
}

/** The site of an assembly; null where there is none. */
export const siteOfBuild = async (tx: Tx, code: string): Promise<number | null> => (await find(tx, 'build', { code }))?.site_id ?? null;

export const STATE_SAYS: Readonly<Record<string, string>> = {
  planned: 'Nothing of it is gathered yet',
  gathering: 'Its parts are being gathered',
  built: 'It is built already',
  cancelled: 'It was called off',
};
