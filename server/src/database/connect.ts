import { AsyncLocalStorage, AsyncResource } from 'node:async_hooks';
import { Sequelize } from 'sequelize';
import type { Config } from '../common/config.js';

/** What a connection waits for at most. A query that takes longer is broken off by the database, a silent one by us. */
const PATIENCE = { statementS: 10, lockS: 8, silentMs: 15_000, connectMs: 3000, acquireMs: 5000 } as const;

/**
 * A transaction is passed on to every query made while it is open. Without that, a query inside it asks the pool for a
 * second connection; as many transactions as there are connections then wait for each other.
 */
const open = new AsyncLocalStorage<Map<string, unknown>>();
Sequelize.useCLS({
  run: (work: (context: unknown) => unknown) => open.run(new Map(open.getStore() ?? []), () => work(open.getStore())),
  bind: <T extends (...a: never[]) => unknown>(work: T) => AsyncResource.bind(work as never),
  get: (key: string) => open.getStore()?.get(key),
  set: (key: string, value: unknown) => open.getStore()?.set(key, value),
} as never);

/** Opens a connection pool. `patient`: for migrations, whose statements may take long and wait for each other. */
export function connect(c: Config['database'], { patient = false } = {}): Sequelize {
  return new Sequelize(c.name, c.user, c.password, {
    dialect: 'mariadb',
    host: '127.0.0.1',
    port: c.port,
    logging: false,
    timezone: '+00:00',
    pool: { max: patient ? 3 : 12, min: 0, acquire: PATIENCE.acquireMs, idle: 10_000 },
    dialectOptions: {
      connectTimeout: PATIENCE.connectMs,
      ...(!patient && {
        socketTimeout: PATIENCE.silentMs,
        initSql: `SET SESSION max_statement_time=${PATIENCE.statementS}, innodb_lock_wait_timeout=${PATIENCE.lockS}`,
      }),
    },
    define: { underscored: true, timestamps: false },
  });
}
