import type { DataSource } from 'typeorm';
import { rows } from '../platform/index.js';

interface ColumnFact {
  tbl: string;
  col: string;
  kind: string;
  type: string;
  nullable: string;
  preset: string | null;
  extra: string;
  json: number;
}

const WHOLE = new Set(['tinyint', 'smallint', 'mediumint', 'int']);
const TEXT = new Set(['varchar', 'char', 'text', 'mediumtext', 'longtext', 'enum', 'date', 'time', 'decimal', 'bigint']);

/** The type that the driver reads a column as: decimals and large numbers as text, days as text, instants as dates. */
function typeOf(c: ColumnFact): string {
  if (Number(c.json) === 1) return 'unknown';
  const base =
    WHOLE.has(c.kind) || c.kind === 'double'
      ? 'number'
      : TEXT.has(c.kind)
        ? 'string'
        : c.kind === 'datetime' || c.kind === 'timestamp'
          ? 'Date'
          : c.kind.endsWith('blob') || c.kind.endsWith('binary')
            ? 'Buffer'
            : null;
  if (!base) throw new Error(`Which type is ${c.tbl}.${c.col}, ${c.kind}?`);
  return c.nullable === 'YES' ? `${base} | null` : base;
}

const union = (names: readonly string[]) => (names.length === 0 ? 'never' : names.map((n) => `'${n}'`).join(' | '));

/** The types of every table of a database, as the text of a file. */
export async function tablesText(source: DataSource): Promise<string> {
  const facts = await rows<ColumnFact>(
    source,
    `SELECT c.table_name AS tbl, c.column_name AS col, c.data_type AS kind, c.column_type AS type, c.is_nullable AS nullable, c.column_default AS preset, c.extra,
       EXISTS (SELECT 1 FROM information_schema.check_constraints k WHERE k.constraint_schema = c.table_schema AND k.table_name = c.table_name AND k.check_clause LIKE CONCAT('%json_valid(\`', c.column_name, '\`)%')) AS json
     FROM information_schema.columns c JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name AND t.table_type = 'BASE TABLE'
     WHERE c.table_schema = DATABASE() AND c.table_name <> 'migrations' ORDER BY c.table_name, c.ordinal_position`,
  );
  const tables = new Map<string, ColumnFact[]>();
  for (const fact of facts) tables.set(fact.tbl, [...(tables.get(fact.tbl) ?? []), fact]);
  const one = ([name, columns]: [string, ColumnFact[]]) => {
    const computed = columns.filter((c) => /GENERATED/.test(c.extra));
    const needed = columns.filter((c) => c.nullable === 'NO' && c.preset === null && !/auto_increment|GENERATED/.test(c.extra));
    return `${name}: { row: { ${columns.map((c) => `${c.col}: ${typeOf(c)};`).join(' ')} }; needs: ${union(needed.map((c) => c.col))}; computed: ${union(computed.map((c) => c.col))} };`;
  };
  return `/**
 * The tables as the migrations make them, written by \`npm run tables\`: the type of each column as the driver reads it,
 * those that a new row must have, and those that the database works out by itself.
 */
export interface Tables { ${[...tables].map(one).join('\n')} }
`;
}
