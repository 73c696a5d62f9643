/**
 * Plants small mistakes in core and sees whether a test notices: `./weben mutate ROOM` (launcher/mutate.ts), which
 * says what to mutate and where the report goes. Sentences are not mutated: what a text says is held by few tests,
 * on purpose.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'tests/mutation/vitest.config.ts', related: false },
  coverageAnalysis: 'perTest',
  mutator: { excludedMutations: ['StringLiteral'] },
  // What is worked out once, when a file is loaded, would need every test for each mistake in it.
  ignoreStatic: true,
  incremental: true,
  tempDirName: '.weben/mutate/sandbox',
  ignorePatterns: ['**', '!core/**', '!tests/**', '!docs/**', '!demo/**', '!package.json'],
  reporters: ['clear-text', 'progress-append-only'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportScoreTable: true },
  timeoutMS: 3000,
  allowEmpty: true,
}
