/** Units: core, contract, standins and the web's own logic, TypeScript straight from source through SWC as ES modules. */
export default {
  testMatch: ['<rootDir>/{core,contract,standins,server,web,bin/lib}/test/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/test/house/'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: false, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: true },
          target: 'es2022',
        },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: {
    '^@radiant/(core|contract|standins)$': '<rootDir>/$1/src/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  // Numbers keep both processors busy; by default one would be left idle.
  maxWorkers: '100%',
  testTimeout: 60_000,
};
