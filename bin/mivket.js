#!/usr/bin/env node
// Whatever breaks, also while the program is read: 1 is a verdict, and never a breakdown.
const explain = (error) => {
  process.stderr.write(`mivket: something went wrong inside Mivket: ${error?.message ?? error}\n`);
  if (process.env.MIVKET_DEBUG) process.stderr.write(`${error?.stack}\n`);
  process.exit(4);
};
process.on('uncaughtException', explain);
const { run } = await import('../dist/cli/bundle/run.js').catch(explain);
const { stdin, stdout, stderr, env } = process;
process.exitCode = await run(process.argv.slice(2), {
  stdin,
  stdout,
  stderr,
  env,
  cwd: process.cwd(),
});
