import { randomBytes } from 'node:crypto';
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';

/** Hex digits that a secret has; a file with fewer was cut short while it was written, and is made anew. */
const DIGITS = 48;

/** The secret in a file, made when it is missing, empty or half written. Nobody else ever sees half of it. */
export function secret(path) {
  const held = read(path);
  if (held && new RegExp(`^[0-9a-f]{${DIGITS},}$`).test(held)) return held;
  const made = randomBytes(DIGITS / 2).toString('hex');
  const draft = `${path}.${process.pid}`;
  const file = openSync(draft, 'w', 0o600);
  writeSync(file, made);
  fsyncSync(file);
  closeSync(file);
  renameSync(draft, path);
  return made;
}

function read(path) {
  try {
    return readFileSync(path, 'utf8').trim();
  } catch {
    return undefined;
  }
}
