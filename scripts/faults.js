// Puts faults into the pure code, one at a time, and tells which of them the tests without a browser do not see:
// `npm run faults`; `npm run faults -- 80 7` for 80 of them by the seed 7; `npm run faults -- 20 1 src/core/mend` for
// those of a folder. It works on a copy.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { globSync } from 'tinyglobby';
import ts from 'typescript';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const PURE = ['src/core/**', 'src/checks/**', 'src/formats/**', 'src/facts/*/{fact,collect}.ts'];
const TESTS = ['test/core', 'test/facts', 'test/formats', 'test/contract', 'test/render/gaps'];
/** What part of the faults is to be seen. */
const AIM = 0.85;
/** A fault that lets the tests run on for so long is seen as well, ms. */
const LIMIT = 120_000;

/** One sign in the place of another. */
const SWAPPED = {
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '&&': '||',
  '||': '&&',
  '+': '-',
  '-': '+',
};

const [count = '40', seed = '1', within = ''] = process.argv.slice(2);
const copy = mkdtempSync(join(tmpdir(), 'mivket-faults-'));
try {
  for (const name of ['src', 'test', 'demo', 'schema', 'docs', 'package.json', 'jest.config.js'])
    cpSync(join(ROOT, name), join(copy, name), { recursive: true });
  symlinkSync(join(ROOT, 'node_modules'), join(copy, 'node_modules'));
  if (!isSound()) throw new Error('The tests fail as it is.');
  const faults = pick(listFaults(), Number(count), Number(seed));
  const unseen = faults.filter((fault) => !isSeen(fault));
  const seen = faults.length - unseen.length;
  process.stdout.write(`${seen} of ${faults.length} faults were seen\n`);
  process.exitCode = seen < AIM * faults.length ? 1 : 0;
} finally {
  rmSync(copy, { recursive: true });
}

/** All faults that can be made. */
function listFaults() {
  const files = globSync(PURE, { cwd: ROOT }).filter((file) => file.startsWith(within));
  return files
    .filter((file) => !file.endsWith('.d.ts'))
    .sort()
    .flatMap((file) => {
      const text = readFileSync(join(ROOT, file), 'utf8');
      const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
      const found = [];
      const visit = (node) => {
        if (ts.isTypeNode(node) || isExample(node)) return;
        for (const fault of listIn(node, source)) found.push({ file, text, ...fault });
        ts.forEachChild(node, visit);
      };
      visit(source);
      return found;
    });
}

/** Words, and what a check is shown by, decide nothing. */
function isExample(node) {
  return ts.isPropertyAssignment(node) && /^(examples|samples)$/.test(node.name.getText());
}

/** What can be done to one piece of code. */
function listIn(node, source) {
  const at = (part, text) => ({ start: part.getStart(source), end: part.getEnd(), to: text });
  if (ts.isBinaryExpression(node)) {
    const to = SWAPPED[node.operatorToken.getText(source)];
    return to && !isText(node) ? [at(node.operatorToken, to)] : [];
  }
  if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
    return [at(node, node.operand.getText(source))];
  if (ts.isNumericLiteral(node) && ts.isVariableDeclaration(node.parent))
    return [at(node, String(Number(node.text) * 2 + 1))];
  // Which words are said decides nothing.
  if (ts.isConditionalExpression(node) && !isSaid(node.whenTrue) && !isSaid(node.whenFalse))
    return [at(node, node.whenTrue.getText(source)), at(node, node.whenFalse.getText(source))];
  // An early return is left out.
  if (ts.isIfStatement(node) && !node.elseStatement) return [at(node.expression, 'false')];
  return [];
}

function isText({ left, right }) {
  return isSaid(left) || isSaid(right);
}

function isSaid(node) {
  return ts.isStringLiteralLike(node) || ts.isTemplateExpression(node);
}

/** The same for the same seed. */
function pick(all, many, from) {
  let state = from;
  const next = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  return all
    .map((fault) => ({ fault, order: next() }))
    .sort((a, b) => a.order - b.order)
    .slice(0, many)
    .map(({ fault }) => fault);
}

function isSeen({ file, text, start, end, to }) {
  const path = join(copy, file);
  writeFileSync(path, text.slice(0, start) + to + text.slice(end));
  const sound = isSound();
  writeFileSync(path, text);
  const line = text.slice(0, start).split('\n').length;
  const was = text.slice(start, end).replace(/\s+/g, ' ');
  const told = `${file}:${line}  ${was.slice(0, 60)} → ${to.replace(/\s+/g, ' ').slice(0, 60)}`;
  process.stdout.write(`${sound ? 'NOT SEEN' : 'seen    '}  ${told}\n`);
  return !sound;
}

function isSound() {
  const jest = join(ROOT, 'node_modules/jest/bin/jest.js');
  const args = ['--experimental-vm-modules', '--no-warnings', jest, '--bail', '--silent'];
  const options = { cwd: copy, timeout: LIMIT, stdio: 'ignore' };
  const { status } = spawnSync(
    process.execPath,
    [...args, '--selectProjects', 'unit', '--', ...TESTS],
    options,
  );
  return status === 0;
}
