import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { inRoot } from '../bin/lib/paths.mjs';
import { figure } from './figure.mjs';

/** Every script that the first page names or preloads, and whatever those import at once. */
const dist = inRoot('web', 'dist');
const html = readFileSync(join(dist, 'index.html'), 'utf8');
const due = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((m) => m[1]);
const seen = new Set();
let bytes = 0;
while (due.length) {
  const path = due.pop();
  if (seen.has(path)) continue;
  seen.add(path);
  const code = readFileSync(join(dist, path), 'utf8');
  bytes += gzipSync(code).length;
  for (const m of code.matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)) due.push(`assets/${m[1]}`);
}
if (seen.size === 0) throw new Error('The built page names no script.');
figure('first-page-javascript', bytes / 1000, 'kB-gzip', 'limit:250kB', 250_000 / bytes);
