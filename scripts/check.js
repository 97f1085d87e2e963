// Types, rules and format are looked at side by side; what one of them has to say is shown when it is through.
import { spawn } from 'node:child_process';

const LOOKS = ['check:types', 'check:lint', 'check:format'];

/** @returns whether all was well */
function look(name) {
  const child = spawn('npm', ['run', '--silent', name], { stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk));
  return new Promise((resolve) =>
    child.on('close', (code) => {
      process.stdout.write(Buffer.concat(said));
      resolve(code === 0);
    }),
  );
}

const found = await Promise.all(LOOKS.map(look));
process.exitCode = found.every(Boolean) ? 0 : 1;
