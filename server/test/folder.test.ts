import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { filesBelow, Rest } from '../src/inbox/folder.js';

const seen = (size: number, timeMs: number, path = 'a.stl') => ({ path, size, timeMs });

describe('a file that is being written', () => {
  it('has rested when its size and its time have been the same for ten seconds by our clock, whatever the disk’s says', () => {
    const rest = new Rest(10_000);
    const skewed = Date.now() - 3600_000;
    expect(rest.settled([seen(10, skewed)], 0)).toEqual([]);
    expect(rest.settled([seen(10, skewed)], 9_999)).toEqual([]);
    expect(rest.settled([seen(10, skewed)], 10_000)).toHaveLength(1);
  });

  it('begins its rest anew with every byte, and with every touch of the same size', () => {
    const rest = new Rest(10_000);
    rest.settled([seen(10, 1)], 0);
    expect(rest.settled([seen(20, 1)], 9_000)).toEqual([]);
    expect(rest.settled([seen(20, 2)], 18_000)).toEqual([]);
    expect(rest.settled([seen(20, 2)], 27_999)).toEqual([]);
    expect(rest.settled([seen(20, 2)], 28_000)).toHaveLength(1);
  });

  it('that goes and comes again begins anew; others are not disturbed', () => {
    const rest = new Rest(10_000);
    rest.settled([seen(10, 1), seen(5, 1, 'b.jpg')], 0);
    rest.settled([seen(5, 1, 'b.jpg')], 5_000);
    expect(rest.settled([seen(10, 1), seen(5, 1, 'b.jpg')], 10_000).map((f) => f.path)).toEqual(['b.jpg']);
  });
});

describe('what lies in a folder', () => {
  let dir: string;
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'radiant-folder-'));
  });
  afterEach(() => rmSync(dir, { recursive: true }));

  it('is its files and those of its folders; hidden ones are passed over', async () => {
    mkdirSync(join(dir, 'camera', 'Avocet'), { recursive: true });
    mkdirSync(join(dir, '.taking'));
    for (const path of ['a.jpg', 'camera/b.jpg', 'camera/Avocet/c.jpg', '.draft', '.taking/d.jpg', 'camera/.e'])
      writeFileSync(join(dir, path), 'x');
    const { files, odd } = await filesBelow(dir);
    expect(files.map((f) => f.path).sort()).toEqual(['a.jpg', 'camera/Avocet/c.jpg', 'camera/b.jpg']);
    expect(odd).toEqual([]);
  });

  it('is not what its links point to, files or folders', async () => {
    const elsewhere = mkdtempSync(join(tmpdir(), 'radiant-elsewhere-'));
    writeFileSync(join(elsewhere, 'secret.jpg'), 'x');
    symlinkSync(join(elsewhere, 'secret.jpg'), join(dir, 'Avocet - link.jpg'));
    symlinkSync(elsewhere, join(dir, 'camera'));
    expect((await filesBelow(dir)).files).toEqual([]);
    rmSync(elsewhere, { recursive: true });
  });

  it('with a name that is no UTF-8 is told apart, and does not hide the others', async () => {
    writeFileSync(Buffer.concat([Buffer.from(`${dir}/Br`), Buffer.from([0xfc]), Buffer.from('cke.jpg')]), 'x');
    writeFileSync(join(dir, 'Brücke.jpg'), 'x');
    const { files, odd } = await filesBelow(dir);
    expect(files.map((f) => f.path)).toEqual(['Brücke.jpg']);
    expect(odd.map((o) => o.path)).toEqual(['Br\ufffdcke.jpg']);
  });
});
