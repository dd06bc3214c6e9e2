import { seedOfCommit } from './scripts/seed.mjs'

// The workers have the environment of this process.
process.env.ORNATE_PHASOR_SEED ??= String(seedOfCommit())

/** Unit tests of the core, the shared schemas, the server, the page's own code, and the judge of the storm. */
export default {
  testEnvironment: 'node',
  // By itself it leaves a core free: of two that is half.
  maxWorkers: '100%',
  testSequencer: '<rootDir>/scripts/longestFirst.mjs',
  roots: ['<rootDir>/core', '<rootDir>/shared', '<rootDir>/server', '<rootDir>/cli', '<rootDir>/app', '<rootDir>/e2e'],
  testMatch: ['**/*.test.ts'],
  setupFilesAfterEnv: ['<rootDir>/jest.setup.ts'],
  transform: {
    '^.+\\.vue$': '<rootDir>/scripts/jestVue.mjs',
    '^.+\\.ts$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  moduleNameMapper: {
    // With the seed and the share of draws that are asked for.
    '^fast-check$': '<rootDir>/scripts/draws.cjs',
    // All of its components in one file that needs no bundler.
    '^vuetify$': '<rootDir>/node_modules/vuetify/dist/vuetify.js',
    '^#core/(.*)$': '<rootDir>/core/$1.ts',
    '^#shared/(.*)$': '<rootDir>/shared/$1.ts',
    '^~/(.*\\.vue)$': '<rootDir>/app/$1',
    '^~/(.*)$': '<rootDir>/app/$1.ts',
  },
}
