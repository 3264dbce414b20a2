/** Unit and integration tests; browser journeys are Playwright's (e2e/). */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  // Looking these up through the sandbox would make the grid loops ten times slower.
  sandboxInjectedGlobals: ['Math', 'Infinity'],
  transform: { '^.+\\.(t|j)sx?$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' }, module: { type: 'commonjs' } }] },
  transformIgnorePatterns: ['/node_modules/(?!(culori|d3-array|d3-contour|internmap)/)'],
};
