const SOURCES = {
  extensionsToTreatAsEsm: ['.ts'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } },
    ],
  },
};
const FOLDERS = { browser: ['browser'], e2e: ['e2e'], long: ['long'] };
const OTHERS = Object.values(FOLDERS).flat();

/** Tests in a project of their own: what needs no browser, what renders, what runs the built program, and what takes long. */
const project = (displayName, testMatch, ignored = []) => ({
  ...SOURCES,
  displayName,
  testMatch: testMatch.map((pattern) => `<rootDir>/test/${pattern}`),
  testPathIgnorePatterns: ignored.map((folder) => `<rootDir>/test/${folder}/`),
});

export default {
  projects: [
    project('unit', ['**/*.test.ts'], OTHERS),
    ...Object.entries(FOLDERS).map(([name, folders]) =>
      project(
        name,
        folders.map((folder) => `${folder}/**/*.test.ts`),
      ),
    ),
  ],
  maxWorkers: 2,
  testTimeout: 120_000,
};
