import units from './jest.config.js';

/** Server and interface, against a whole house of their own: database, server and demo data, started once by bin/start. */
export default {
  ...units,
  testMatch: ['<rootDir>/server/test/house/**/*.test.ts', '<rootDir>/e2e/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/'],
  globalSetup: '<rootDir>/bin/lib/test-house.mjs',
  globalTeardown: '<rootDir>/bin/lib/test-house-end.mjs',
  maxWorkers: 1,
  testTimeout: 120_000,
};
