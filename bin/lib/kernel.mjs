import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import asc from 'assemblyscript/asc';
import { inRoot } from './paths.mjs';

export const KERNEL = { source: 'core/kernel/nearest.ts', product: 'core/src/geometry/tree/nearest-wasm.ts' };

/** Compiles the search kernel; what comes out is the text of the file that core ships. */
export async function compiledKernel() {
  let bytes;
  const { error, stderr } = await asc.main(
    [
      KERNEL.source,
      '--outFile',
      'nearest.wasm',
      '--optimizeLevel',
      '3',
      '--enable',
      'simd',
      '--runtime',
      'stub',
      '--noAssert',
      '--importMemory',
    ],
    {
      readFile: (name) => (existsSync(inRoot(name)) ? readFileSync(inRoot(name), 'utf8') : null),
      writeFile: (name, content) => {
        if (name.endsWith('.wasm')) bytes = content;
      },
    },
  );
  if (error || !bytes) throw new Error(`The kernel does not compile: ${stderr.toString() || error?.message}`);
  const base64 = Buffer.from(bytes).toString('base64');
  return `/** ${KERNEL.source}, compiled; made by \`npm run kernel\`, not by hand. */\nexport const NEAREST_WASM =\n  '${base64}';\n`;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  writeFileSync(inRoot(KERNEL.product), await compiledKernel());
