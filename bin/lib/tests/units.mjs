// `npm run units -- PATTERN…`: units alone, as they come. `npm run units -- --server PATTERN…` and `--interface` with a house.
import { runJest } from './runner.mjs';

const [first, ...rest] = process.argv.slice(2);
const lane = first === '--server' ? 'server' : first === '--interface' ? 'interface' : 'units';
const args = lane === 'units' ? process.argv.slice(2) : rest;
process.exitCode = (await runJest(lane, { args, hear: (chunk) => process.stdout.write(chunk) })) ? 0 : 1;
