import { withHouse } from './configuration.mjs';

/** The server as it runs, with its database. */
export default {
  ...withHouse,
  testMatch: ['<rootDir>/server/test/house/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/'],
};
