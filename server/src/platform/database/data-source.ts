import { DataSource, type DataSourceOptions, MigrationExecutor, type QueryRunner } from 'typeorm';
import type { Config } from '../config.js';
import { askedOf, begunTogether, type Heard } from './begin.js';
import { underLock } from './named-lock.js';
import { sent } from './prepared.js';
import { rows } from './tx.js';

/** A step that changes tables, as TypeORM runs it. */
export type Migrations = DataSourceOptions['migrations'];

/** `statementMs`: how long a statement may take before it is given up; without it, as long as it needs. */
export function dataSourceOptions(config: Config, migrations: Migrations, statementMs?: number): DataSourceOptions {
  return {
    type: 'mariadb',
    host: config.DATABASE_HOST,
    port: config.DATABASE_PORT,
    username: config.DATABASE_USER,
    password: config.DATABASE_PASSWORD,
    database: config.DATABASE_NAME,
    timezone: 'Z',
    charset: 'utf8mb4',
    supportBigNumbers: true,
    bigNumberStrings: true,
    dateStrings: ['DATE'],
    synchronize: false,
    migrationsTransactionMode: 'each',
    migrations,
    poolSize: config.DATABASE_CONNECTIONS,
    connectTimeout: CONNECT_MS,
    // A stack for every statement costs more than it tells: a fault names its statement.
    extra: { trace: false, maxPreparedStatements: MOST_PREPARED },
    ...(statementMs ? { maxQueryExecutionTime: statementMs, enableQueryTimeout: true } : {}),
  };
}

const CONNECT_MS = 5_000;
/** A connection's own; all servers of a house together may have 16,382 in the database. */
const MOST_PREPARED = 250;
/** Longer than a burst of requests has to wait for a connection, shorter than people do. */
const WAIT_MS = 15_000;
const TOO_LATE = 'PROTOCOL_SEQUENCE_TIMEOUT';

/** What the driver's pool and connections are, as far as limits need them. */
interface Connection {
  query: (...args: unknown[]) => unknown;
  execute: (sql: string, params: unknown[], heard: Heard) => unknown;
  destroy: () => void;
  release: () => void;
}
interface Pool {
  getConnection: (heard: (fault: Error | null, connection?: Connection) => void) => void;
}

/**
 * Lets go of connections whose statement took too long: the answer may still come, and would be taken for that of the next.
 * A database that stands still gives its connections back so, one by one, and new ones are opened when it goes on. Whoever
 * waits for a connection is told when none comes: the driver forgets those who wait where a new one could not be opened.
 */
export function limited(source: DataSource): DataSource {
  const initialize = source.initialize.bind(source);
  source.initialize = async () => {
    await initialize();
    const { pool } = source.driver as unknown as { pool: Pool };
    const get = pool.getConnection.bind(pool);
    pool.getConnection = (heard) => get(answeredInTime(heard));
    return source;
  };
  return source;
}

const watched = new WeakSet<Connection>();

/** Sets a connection up once, when it is first given out. What it is sent here goes before whatever it is asked for. */
function setUp(connection: Connection): void {
  if (watched.has(connection)) return;
  watched.add(connection);
  watchAnswers(connection);
  // Whatever the database begins with: so no transaction has to say it again.
  connection.query({ sql: 'SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED', timeout: CONNECT_MS }, () => undefined);
}

function watchAnswers(connection: Connection): void {
  const query = connection.query.bind(connection);
  const send = begunTogether(({ sql, params, timeout, isPrepared }, heard) => {
    const answered: Heard = (fault, ...more) => {
      if (fault?.code === TOO_LATE) connection.destroy();
      heard(fault, ...more);
    };
    return isPrepared
      ? connection.execute(sql, (params as unknown[]).map(sent), inTime(answered, timeout))
      : query({ sql, timeout }, params, answered);
  });
  connection.query = (...args) => {
    const heard = args.at(-1);
    if (typeof heard !== 'function') return query(...args);
    const [given, params] = args.slice(0, -1) as [string | { sql: string; timeout?: number }, unknown];
    return send(askedOf(given, params), heard as Heard);
  };
}

/** The driver's own limit begins when a statement has been read; this one holds for the reading too. */
function inTime(heard: Heard, ms: number | undefined): Heard {
  if (ms === undefined) return heard;
  let isTold = false;
  const tell: Heard = (...answer) => {
    clearTimeout(timer);
    if (!isTold) heard(...answer);
    isTold = true;
  };
  const timer = setTimeout(() => tell(Object.assign(new Error('The database took too long'), { code: TOO_LATE })), ms);
  return tell;
}

function answeredInTime(heard: Parameters<Pool['getConnection']>[0]): typeof heard {
  let isTold = false;
  const timer = setTimeout(() => {
    isTold = true;
    heard(Object.assign(new Error('No connection to the database came free'), { code: 'ETIMEDOUT' }));
  }, WAIT_MS);
  return (fault, connection) => {
    clearTimeout(timer);
    if (connection) setUp(connection);
    if (!isTold) heard(fault, connection);
    else connection?.release();
  };
}

const MIGRATING = 'vectrum-migrate';
const WAIT_S = 120;

/**
 * Brings the schema up to date under a lock, so that servers starting together do not migrate twice. The lock is held by
 * the connection that migrates; throws where another server has had it for two minutes.
 */
export async function migrate(source: DataSource): Promise<void> {
  // Tables of years take longer to change than any page may wait, and so does waiting for the lock.
  const patient = new DataSource({ ...source.options, poolSize: 2, enableQueryTimeout: false } as DataSourceOptions);
  await patient.initialize();
  const runner = patient.createQueryRunner();
  try {
    await underLock(runner, MIGRATING, WAIT_S, async () => {
      await mustBeKnown(patient, runner);
      const executor = new MigrationExecutor(patient, runner);
      executor.transaction = 'each';
      await executor.executePendingMigrations();
    });
  } finally {
    await runner.release();
    await patient.destroy();
  }
}

/** Refuses a house that a newer version has changed: this one would not understand what it finds. */
async function mustBeKnown(source: DataSource, runner: QueryRunner): Promise<void> {
  const known = new Set(source.migrations.map((m) => m.name ?? m.constructor.name));
  if ((await rows(runner, `SHOW TABLES LIKE 'migrations'`)).length === 0) return;
  const done = await rows<{ name: string }>(runner, 'SELECT name FROM migrations ORDER BY id');
  const stranger = done.find((m) => !known.has(m.name));
  if (stranger)
    throw new Error(
      `This house was used by a newer version (${stranger.name}). Start that one, or restore the backup that was made before it; see docs/operating.md`,
    );
}
