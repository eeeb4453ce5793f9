// Tries the forty jaws and writes what was found into picks.json: node --import ./bin/lib/typescript.mjs
// core/test/trials/record-picks.ts
import { writeFileSync } from 'node:fs';
import { allPicks } from './picks.js';

writeFileSync(new URL('./picks.json', import.meta.url), allPicks());
