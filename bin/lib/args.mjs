import { resolve } from 'node:path';
import { root } from './paths.mjs';

/** The options that all three commands take. Ends the process with a sentence when one is not understood. */
export function readArgs(argv, defaults) {
  const out = { port: defaults.port, data: resolve(root, defaults.data), empty: false, one: false };
  for (let i = 0; i < argv.length; i++) {
    const [name, inline] = argv[i].split('=');
    const value = () => inline ?? argv[++i];
    if (name === '--port') {
      out.port = Number(value());
      if (!Number.isInteger(out.port) || out.port < 1 || out.port > 65535)
        fail('--port takes a number from 1 to 65535.');
    } else if (name === '--data') {
      const dir = value();
      if (!dir) fail('--data takes a folder.');
      out.data = resolve(dir);
    } else if (name === '--empty') out.empty = true;
    else if (name === '--one') out.one = true;
    else fail(`${argv[i]} is not understood. Known: --port N, --data DIR, --empty, --one.`);
  }
  return out;
}

export function fail(sentence) {
  console.error(sentence);
  process.exit(1);
}
