#!/usr/bin/env node
import { run, explainCrash } from '../dist/cli/bundle/run.js';

process.on('uncaughtException', explainCrash);
process.exitCode = await run(process.argv.slice(2), {
  stdin: process.stdin,
  stdout: process.stdout,
  stderr: process.stderr,
  env: process.env,
  cwd: process.cwd(),
});
