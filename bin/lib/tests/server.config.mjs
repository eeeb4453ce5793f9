import { withHouse } from './configuration.mjs';
import { MODELLING } from './modelling.config.mjs';

/** The server as it runs, with its database. */
export default {
  ...withHouse,
  testMatch: ['<rootDir>/server/test/house/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', ...MODELLING],
};
