// `npm run units -- PATTERN…`: units alone, as they come; with `--server`, `--interface` or `--modelling` first, a lane
// with its house.
import { runJest } from './runner.mjs';

const [first, ...rest] = process.argv.slice(2);
const lane = /^--(server|interface|modelling)$/.exec(first ?? '')?.[1] ?? 'units';
const args = lane === 'units' ? process.argv.slice(2) : rest;
process.exitCode = (await runJest(lane, { args, hear: (chunk) => process.stdout.write(chunk) })) ? 0 : 1;
