import { createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaseDetail, Delivered } from '@radiant/contract';
import sharp from 'sharp';
import { backUp } from '../../../bin/lib/backup.mjs';
import { launchHouse } from '../../../bin/lib/house.mjs';
import { restore } from '../../../bin/lib/restore.mjs';
import { Client, DATA, inDatabase, PASSWORD, PEOPLE, PORT, signedIn, until } from '../house.js';

const room = mkdtempSync(join(tmpdir(), 'radiant-backup-'));
// The database's own account must come through, as it does to a folder that people choose.
chmodSync(room, 0o711);
const backup = join(room, 'backup');
afterAll(() => rmSync(room, { recursive: true, force: true }));

const picture = (n: number) =>
  sharp({ create: { width: 240, height: 220, channels: 3, background: { r: n % 250, g: (n * 7) % 250, b: 30 } } })
    .jpeg()
    .toBuffer();

it('taken while people work, it restores into a house that has every case and every byte that was there before', async () => {
  const dentist = await signedIn('dentist');
  const made = (await dentist.post<CaseDetail>('/cases', { name: 'Backed up' })).body;
  const sent: Delivered[] = [];
  for (let i = 0; i < 5; i++)
    sent.push(
      (await dentist.upload<Delivered>(`/cases/${made.id}/files?kind=photo`, await picture(i), `${i}.jpg`)).body,
    );
  await dentist.patch(`/cases/${made.id}/sections/meet`, { version: 0, data: { wish: 'kept safe' } });
  const before = (await dentist.get<CaseDetail>(`/cases/${made.id}`)).body;
  // A case whose days in the bin are over, which holds a picture of its own and one that the other case holds too.
  const over = (await dentist.post<CaseDetail>('/cases', { name: 'Put away long ago' })).body.id;
  for (const n of [0, 99])
    await dentist.upload<Delivered>(`/cases/${over}/files?kind=photo`, await picture(n), `${n}.jpg`);
  await dentist.call('DELETE', `/cases/${over}`);
  await inDatabase((run) => run('UPDATE cases SET removed_at = NOW(3) - INTERVAL 31 DAY WHERE id = ?', [over]));

  let working = true;
  const work = (async () => {
    for (let i = 10; working; i++) {
      const file = (await dentist.upload<Delivered>(`/cases/${made.id}/files?kind=photo`, await picture(i), `${i}.jpg`))
        .body;
      if (i % 2) await dentist.call('DELETE', `/cases/${made.id}/files/${file.id}`);
    }
  })();
  await backUp(DATA, backup);
  working = false;
  await work;
  await expect(backUp(DATA, backup)).rejects.toThrow(/is there already/);

  const data = join(room, 'restored');
  await restore(backup, data);
  await expect(restore(backup, data)).rejects.toThrow(/is not empty/);
  const house = await launchHouse({ port: PORT + 80, data });
  try {
    const again = new Client(house.url);
    expect((await again.post('/session', { email: PEOPLE.dentist, password: PASSWORD })).status).toBe(200);
    const restored = (await again.get<CaseDetail>(`/cases/${made.id}`)).body;
    expect(restored.sections).toEqual(before.sections);
    expect(restored.files.slice(0, sent.length)).toEqual(before.files);
    for (const f of [...restored.files, ...restored.removed])
      expect((await again.raw('GET', `/cases/${made.id}/files/${f.id}/original`)).status).toBe(200);
    expect(
      Buffer.from(await again.bytes(`/cases/${made.id}/files/${sent[0]?.id}/original`)).equals(await picture(0)),
    ).toBe(true);
    // A house that begins forgets what its days are over for; bytes that others hold stay.
    await until('the case is forgotten', async () => (await again.get(`/cases/${over}`)).status === 404);
    const holds = async (n: number) => {
      const name = createHash('sha256')
        .update(await picture(n))
        .digest('hex');
      return existsSync(join(data, 'files', name.slice(0, 2), name));
    };
    await until('its own picture is gone', async () => !(await holds(99)));
    expect(await holds(0)).toBe(true);
  } finally {
    await house.stop();
  }
});

it('damaged anywhere it is not restored', async () => {
  const store = join(backup, 'files');
  const folder = readdirSync(store)[0] as string;
  const file = join(store, folder, readdirSync(join(store, folder))[0] as string);
  const whole = readFileSync(file);
  writeFileSync(file, whole.subarray(1));
  await expect(restore(backup, join(room, 'a'))).rejects.toThrow(/^The file [0-9a-f]{64} in the backup is damaged\.$/);
  rmSync(file);
  await expect(restore(backup, join(room, 'b'))).rejects.toThrow(/^The backup holds \d+ files instead of \d+\.$/);
  writeFileSync(file, whole);
  writeFileSync(join(backup, 'database.sql'), `${readFileSync(join(backup, 'database.sql'), 'utf8')}\n-- x`);
  await expect(restore(backup, join(room, 'c'))).rejects.toThrow('The database in the backup is damaged.');
  await expect(restore(room, join(room, 'd'))).rejects.toThrow(/is no backup/);
});
