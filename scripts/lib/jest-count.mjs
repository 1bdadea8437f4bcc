// Sums what Jest and Playwright counted, from their JSON reports.
import { existsSync, readFileSync } from 'node:fs';

export function jestCounts(path) {
  if (!existsSync(path)) return { passed: 0, failed: 1 };
  const r = JSON.parse(readFileSync(path, 'utf8'));
  return { passed: r.numPassedTests, failed: r.numFailedTests + r.numRuntimeErrorTestSuites + r.numPendingTests };
}

export function playwrightCounts(path) {
  if (!existsSync(path)) return { passed: 0, failed: 1 };
  const { stats } = JSON.parse(readFileSync(path, 'utf8'));
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped };
}
