/**
 * Unit and property tests beside the code, and tests of disk, command line and server on real disks and a real
 * database.
 */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages'],
  testMatch: ['**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' },
        module: { type: 'es6' },
        sourceMaps: 'inline',
      },
    ],
  },
  modulePathIgnorePatterns: ['<rootDir>/dist/', '<rootDir>/.tmp/'],
  testTimeout: 60_000,
  maxWorkers: 2,
};
