import { withHouse } from './configuration.mjs';
import { MODELLING } from './modelling.config.mjs';

/** The interface as its users have it, in Chromium: everything but the benches in three dimensions. */
export default {
  ...withHouse,
  testMatch: ['<rootDir>/e2e/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', ...MODELLING],
};
