import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

it('where the engine runs no WebAssembly, a large tree is searched all the same', () => {
  const script = fileURLToPath(new URL('./trials/without-webassembly.ts', import.meta.url));
  const said = JSON.parse(execFileSync(process.execPath, [script], { encoding: 'utf8' })) as {
    packed: boolean;
    distances: number[];
  };
  expect(said.packed).toBe(false);
  expect(said.distances).toHaveLength(1);
  expect(said.distances[0]).toBeCloseTo(5, 2);
});
