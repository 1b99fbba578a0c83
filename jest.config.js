import { testPackages } from './scripts/testPackages.mjs'

/** Unit and server tests. The server tests share one real MariaDB, started in globalSetup. */
export default async () => ({
  testEnvironment: '<rootDir>/scripts/jestEnvironment.mjs',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } }
        },
        module: { type: 'es6' }
      }
    ]
  },
  testMatch: [
    '<rootDir>/{core,analysis,simulation,simulators,server,web,demo,scripts}/**/*.test.{ts,tsx}'
  ],
  moduleNameMapper: { '\\.css$': '<rootDir>/web/testing/noStyles.ts', ...(await testPackages()) },
  setupFilesAfterEnv: ['<rootDir>/core/testing/matchers.ts'],
  globalSetup: '<rootDir>/server/testing/setup.mjs',
  globalTeardown: '<rootDir>/server/testing/teardown.mjs',
  coveragePathIgnorePatterns: ['/node_modules/', '<rootDir>/dist/'],
  // Three at a time, also on two cores: much of a test is waiting, for a walk or for a child of its own.
  maxWorkers: 3,
  // What modules of earlier files leave behind is looked through whenever coverage begins: a new process takes less time.
  workerIdleMemoryLimit: '300MB',
  // What hangs is ended; how long a test takes says nothing of what it tests.
  testTimeout: 600_000
})
