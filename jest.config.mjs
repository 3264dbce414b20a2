/** Unit and integration tests; browser journeys are Playwright's (e2e/). */
export default {
  testEnvironment: 'node',
  // Machines differ: a slow one is no defect.
  testTimeout: 60_000,
  // One less than there are cores would leave a machine of two half idle.
  maxWorkers: '100%',
  roots: ['<rootDir>/src', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  setupFiles: ['<rootDir>/scripts/propertySeed.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    // Their main files are modules of the kind that the sandbox cannot require.
    '^d3-contour$': '<rootDir>/node_modules/d3-contour/dist/d3-contour.js',
    '^d3-array$': '<rootDir>/node_modules/d3-array/dist/d3-array.js',
  },
  // Looking these up through the sandbox would make the grid loops ten times slower.
  sandboxInjectedGlobals: [
    'Math',
    'Infinity',
    'Object',
    'Array',
    'Number',
    'Map',
    'Set',
    'Symbol',
    'JSON',
    'String',
    'Error',
    'Date',
    'Float32Array',
    'Float64Array',
    'Uint8Array',
    'Uint16Array',
    'Int16Array',
    'Int32Array',
    'Uint32Array',
  ],
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(culori|d3-array|d3-contour|fast-png|internmap|iobuffer)/)'],
};
