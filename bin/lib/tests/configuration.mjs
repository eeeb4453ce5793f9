import { root } from '../paths.mjs';

/** What the three lanes have in common. */
export const shared = {
  rootDir: root,
  runner: 'jest-light-runner',
  transform: {},
  setupFilesAfterEnv: ['<rootDir>/bin/lib/tests/limits.mjs'],
  // A build that is made anew while tests are looked for would be met half.
  modulePathIgnorePatterns: ['/dist/', '/.data/'],
};

/** A lane with a house of its own, one file after the other. */
export const withHouse = {
  ...shared,
  globalSetup: '<rootDir>/bin/lib/tests/house-up.mjs',
  globalTeardown: '<rootDir>/bin/lib/tests/house-down.mjs',
  maxWorkers: 1,
};
