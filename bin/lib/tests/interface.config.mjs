import { withHouse } from './configuration.mjs';

/** The interface as its users have it, in Chromium. */
export default { ...withHouse, testMatch: ['<rootDir>/e2e/**/*.test.ts'], testPathIgnorePatterns: ['/node_modules/'] };
