// Bundles the command line into a few files: a start that reads hundreds of small modules takes
// most of a second. The unbundled build beside it is the library, with its types.
import { build } from 'esbuild';
import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
// As deep as the modules it is made of, so that what they find by their own place they still find.
const FOLDER = 'dist/cli/bundle';

rmSync(`${ROOT}/${FOLDER}`, { recursive: true, force: true });
await build({
  absWorkingDir: ROOT,
  entryPoints: { run: 'src/cli/run.ts', worker: 'src/render/gate/worker.ts' },
  outdir: FOLDER,
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  // Half as much to read at each start; names stay, for the stack of a breakdown.
  minifyWhitespace: true,
  minifySyntax: true,
  // What was written for CommonJS asks for Node's modules by `require`.
  banner: {
    js: "import { createRequire as makeRequire } from 'node:module'; const require = makeRequire(import.meta.url);",
  },
  logLevel: 'warning',
});
// What runs in the page, each one script; no module of ours is there to be imported.
await build({
  absWorkingDir: ROOT,
  entryPoints: {
    reader: 'src/render/in-page/reader.ts',
    watcher: 'src/render/in-page/watcher.ts',
  },
  outdir: 'dist/in-page',
  bundle: true,
  format: 'iife',
  platform: 'browser',
  target: 'chrome120',
  // It is sent to every document.
  minify: true,
  logLevel: 'warning',
});
