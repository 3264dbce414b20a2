// Jest for `npm run mutants`: the core's own tests, one process for each. Random batches take too long to be tried on every change.
import config from '../jest.config.mjs';

export default {
  ...config,
  rootDir: '..',
  testPathIgnorePatterns: ['formats/agreement'],
  testEnvironment: '@stryker-mutator/jest-runner/jest-env/node',
};
