/** Unit tests of the core, the shared schemas and the server's data layer. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/core', '<rootDir>/shared', '<rootDir>/server', '<rootDir>/cli', '<rootDir>/app'],
  testMatch: ['**/*.test.ts'],
  setupFilesAfterEnv: ['<rootDir>/jest.setup.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  moduleNameMapper: {
    '^#core/(.*)$': '<rootDir>/core/$1.ts',
    '^#shared/(.*)$': '<rootDir>/shared/$1.ts',
    '^~/(.*)$': '<rootDir>/app/$1.ts',
  },
}
