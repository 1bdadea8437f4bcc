// The project's own rules, beyond what the linters know: see docs/architecture.md.
import { existsSync, readFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { rowFindings } from '../lint/row-owners.mjs';
import { ROOT } from './shell.mjs';

const MOST_LINES = 400;
const CODE = /\.(tsx?|mjs|css)$/;
const GENERATED = /(schema\.d|\.generated)\.ts$/;

function trackedFiles() {
  try {
    return execFileSync('git', ['ls-files', '-co', '--exclude-standard'], { cwd: ROOT, encoding: 'utf8' })
      .split('\n')
      .filter((f) => f && existsSync(join(ROOT, f)));
  } catch {
    return [];
  }
}

function rulesOf(file, text) {
  const findings = [];
  const lines = text.split('\n').filter((l) => l.trim()).length;
  if (CODE.test(file) && !GENERATED.test(file) && lines > MOST_LINES) findings.push(`${file}: ${lines} lines, more than ${MOST_LINES}`);
  if (/\.tsx?$/.test(file) && /@ts-(ignore|nocheck)/.test(text)) findings.push(`${file}: switches the type checker off`);
  if (/\.test\.tsx?$/.test(file) && /\b(it|test|describe)\.(skip|only|todo)\b/.test(text))
    findings.push(`${file}: skips or singles out a test`);
  if (/\.controller\.ts$/.test(file) && /\.query\(/.test(text)) findings.push(`${file}: a controller that writes SQL`);
  return findings;
}

/** What breaks a rule, one line each. */
export function houseRules() {
  const lines = trackedFiles()
    .filter((f) => CODE.test(f) && !f.startsWith('scripts/lib/house-rules'))
    .flatMap((f) => rulesOf(f, readFileSync(join(ROOT, f), 'utf8')));
  return [...lines, ...rowFindings(join(ROOT, 'server/src'))];
}
