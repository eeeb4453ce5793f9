import { buffer } from 'node:stream/consumers';
import { simulatedPrinter } from '@radiant/standins';

// A process of its own: the simulated printer. A file comes in, its answer goes out.

process.stdout.write(JSON.stringify(simulatedPrinter(await buffer(process.stdin))));
