import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readConfig } from '../src/common/config.js';
import { HealthController } from '../src/health/health.controller.js';

const asked = async (dataDir: string) => {
  const out = { status: 200 };
  const config = { dataDir, database: { port: 9, user: 'x', password: 'x', name: 'x' } };
  const health = await new HealthController(config as never).health({
    status: (s: number) => Object.assign(out, { status: s }),
  } as never);
  return { ...health, ...out };
};

describe('health', () => {
  it('says that a disk without room is full, and that a database that nobody answers for is away', async () => {
    // The kernel’s own folder of processes has no room at all.
    expect(await asked('/proc')).toEqual({ server: 'up', database: 'away', disk: 'full', status: 503 });
    expect(await asked(tmpdir())).toMatchObject({ disk: 'room' });
  });
});

describe('the secret of sessions', () => {
  const data = mkdtempSync(join(tmpdir(), 'radiant-config-'));
  afterAll(() => rmSync(data, { recursive: true, force: true }));
  const secret = () =>
    readConfig({ RADIANT_DATA: data, RADIANT_PORT: '1', RADIANT_DB_PORT: '2', RADIANT_DB_PASSWORD: 'x' }).sessionSecret;

  it('is made once, and anew when it is empty or half written', () => {
    const first = secret();
    expect(first).toMatch(/^[0-9a-f]{64}$/);
    expect(secret()).toBe(first);
    for (const half of ['', '\n', first.slice(0, 20), `${first}${first}`]) {
      writeFileSync(join(data, 'session.secret'), half);
      const again = secret();
      expect(again).toMatch(/^[0-9a-f]{64}$/);
      expect(again).not.toBe(first);
      expect(readFileSync(join(data, 'session.secret'), 'utf8')).toBe(again);
    }
  });

  it('names what is missing', () => {
    expect(() => readConfig({ RADIANT_DATA: data })).toThrow(/^The server needs RADIANT_PORT/);
  });
});
