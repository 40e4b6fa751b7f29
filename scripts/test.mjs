// npm test: sets up as npm start does, on a database and ports of its own; then lint, types, unit, API and browser tests.
// Exits non-zero on any failure; the last line is `N passed, N failed`.
import { mkdir, readFile, rm } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { ROOT, runMain, say, settings } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';

const bin = (name) => join(ROOT, 'node_modules/.bin', name);
let passed = 0;
let failed = 0;

/** A step that either holds or does not. */
async function check(name, command, args) {
  say(`\n== ${name}`);
  const code = await runShown(command, args, { cwd: ROOT });
  if (code === 0) passed += 1;
  else {
    failed += 1;
    say(`FAILED: ${name}`);
  }
}

/** A test runner that writes a JSON report; a runner that leaves none has failed. */
async function suite(name, command, args, reportFile, count) {
  say(`\n== ${name}`);
  await rm(reportFile, { force: true });
  const code = await runShown(command, args, { cwd: ROOT, env: { ...process.env, CI: 'true', PLAYWRIGHT_JSON_OUTPUT_NAME: reportFile, FORCE_COLOR: '0' } });
  const report = await readFile(reportFile, 'utf8').then(JSON.parse, () => null);
  const result = report === null ? { passed: 0, failed: 1 } : count(report);
  if (result.failed === 0 && (code !== 0 || result.passed === 0)) result.failed = 1;
  passed += result.passed;
  failed += result.failed;
  say(`${name}: ${result.passed} passed, ${result.failed} failed`);
}

const vitest = (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + report.testResults.filter((file) => file.status === 'failed' && file.assertionResults.length === 0).length,
});
// A test that passes only when it is tried again has failed.
const playwright = (report) => ({ passed: report.stats.expected, failed: report.stats.unexpected + report.stats.flaky + report.errors.length });

await runMain(async () => {
  const reports = join(settings('test').dir, 'reports');
  await mkdir(reports, { recursive: true });
  await needDebian(['postgresql', 'ffmpeg', 'flite', 'pocketsphinx', 'pocketsphinx-en-us', 'chromium', 'apertium-eng-spa']);
  await needNodeModules();
  await buildServer();
  await buildWeb();
  // One core each: the first takes as long as the others together.
  await Promise.all([
    check('lint', bin('eslint'), ['.']),
    (async () => {
      await check('types', process.execPath, [join(ROOT, 'scripts/types.mjs')]);
      await check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
    })(),
  ]);
  await suite(
    'unit tests',
    bin('vitest'),
    // Left to itself the runner keeps one core free, which is half of two.
    [
      'run',
      '--project',
      'unit',
      `--maxWorkers=${availableParallelism()}`,
      '--reporter=dot',
      '--reporter=json',
      `--outputFile.json=${join(reports, 'unit.json')}`,
    ],
    join(reports, 'unit.json'),
    vitest,
  );
  await suite(
    'API tests',
    bin('vitest'),
    ['run', '--project', 'api', '--reporter=dot', '--reporter=json', `--outputFile.json=${join(reports, 'api.json')}`],
    join(reports, 'api.json'),
    vitest,
  );
  await suite(
    'browser tests',
    bin('playwright'),
    ['test', '-c', 'e2e/playwright.config.ts', '--reporter=line,json'],
    join(reports, 'browser.json'),
    playwright,
  );
  process.exitCode = failed === 0 ? 0 : 1;
  say(`\n${passed} passed, ${failed} failed`);
});
