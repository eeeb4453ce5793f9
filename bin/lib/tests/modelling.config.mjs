import { withHouse } from './configuration.mjs';

/** The benches in three dimensions, and surfaces as documents, take as long as all the rest: they have a lane. */
export const MODELLING = [
  '/e2e/shape.test.ts',
  '/e2e/light.test.ts',
  '/e2e/handles.test.ts',
  '/e2e/own-scan.test.ts',
  '/e2e/photo-on-scan.test.ts',
  '/e2e/reduce.test.ts',
  '/e2e/propose.test.ts',
  '/server/test/house/documents.test.ts',
];

export default {
  ...withHouse,
  testMatch: MODELLING.map((f) => `<rootDir>${f}`),
  testPathIgnorePatterns: ['/node_modules/'],
};
