import type { QueryRunner } from 'typeorm';

/** Runs statements parted by a semicolon at the end of a line. */
export async function runAll(runner: QueryRunner, sql: string): Promise<void> {
  for (const statement of sql.split(/;\s*$/m)) {
    if (statement.trim() !== '') await runner.query(statement);
  }
}

/** Drops tables, children first. */
export async function dropAll(runner: QueryRunner, tables: readonly string[]): Promise<void> {
  for (const table of tables) await runner.query(`DROP TABLE IF EXISTS \`${table}\``);
}
