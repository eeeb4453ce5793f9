// Lets Node import the project's TypeScript as it stands: `node --import ./bin/lib/typescript.mjs file.ts`. Nothing
// built is looked at, so nothing stale can run. What was translated is kept by the hash of its source.
import { register } from 'node:module';

register('./typescript-hooks.mjs', import.meta.url);
