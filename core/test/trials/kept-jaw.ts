import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { WholeJaw } from '@radiant/standins';

const KEPT = resolve('node_modules', '.cache', 'radiant', 'jaws');

/** The folder of what this program makes, by a hash of the stand-ins and of the library they build with. */
function folder(): string {
  const hash = createHash('sha256');
  for (const from of ['standins/src', 'core/src', 'core/test/trials'])
    for (const name of readdirSync(from, { recursive: true }).map(String).sort())
      if (name.endsWith('.ts')) hash.update(name).update(readFileSync(join(from, name)));
  const own = hash.digest('hex').slice(0, 16);
  // What an earlier program made is of no use any more.
  if (existsSync(KEPT))
    for (const old of readdirSync(KEPT)) if (old !== own) rmSync(join(KEPT, old), { recursive: true, force: true });
  mkdirSync(join(KEPT, own), { recursive: true });
  return join(KEPT, own);
}

let made: string | undefined;

/**
 * A virtual jaw, made once and kept for as long as nothing that makes it has changed.
 * @param from what it is made from, beside the program; anything that JSON can write
 */
export function keptJaw(from: unknown, make: () => WholeJaw): WholeJaw {
  made ??= folder();
  const file = join(made, createHash('sha256').update(JSON.stringify(from)).digest('hex'));
  if (existsSync(file)) return deserialize(readFileSync(file)) as WholeJaw;
  const jaw = make();
  // Another run, of a program that was changed meanwhile, may have taken the folder away.
  mkdirSync(made, { recursive: true });
  const own = `${file}.${process.pid}.${Math.random()}`;
  writeFileSync(own, serialize(jaw));
  renameSync(own, file);
  return jaw;
}
