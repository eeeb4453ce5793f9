import { shared } from './configuration.mjs';

/** Core, contract, stand-ins and the logic of server and web by themselves. Numbers keep both processors busy. */
export default {
  ...shared,
  testMatch: ['<rootDir>/{core,contract,standins,server,web,bin/lib}/test/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/test/house/'],
  maxWorkers: '100%',
};
