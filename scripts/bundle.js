// Bundles the command line into a few files: a start that reads hundreds of small modules takes
// most of a second. The unbundled build beside it is the library, with its types.
import { build, transform } from 'esbuild';
import { createHash } from 'node:crypto';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
// As deep as the modules it is made of, so that what they find by their own place they still find.
const FOLDER = 'dist/cli/bundle';
const NODE = { platform: 'node', target: 'node20', logLevel: 'warning' };
// Half as much to read at each start; names stay, for the stack of a breakdown.
const SHORT = { minifyWhitespace: true, minifySyntax: true };

rmSync(join(ROOT, FOLDER), { recursive: true, force: true });
const chunks = await bundleChunks();
mkdirSync(join(ROOT, FOLDER), { recursive: true });
for (const { name, code } of chunks) writeFileSync(join(ROOT, FOLDER, `${name}.cjs`), code);
await bundleStart(getDigest(chunks));
await bundlePageScripts();

/**
 * The programs and what they share, in files that are loaded as they are needed. Only what is a script,
 * and no module, can be kept as V8 has compiled it: `src/cli/start/chunks.ts` loads them.
 */
async function bundleChunks() {
  const { outputFiles } = await build({
    ...NODE,
    ...SHORT,
    absWorkingDir: ROOT,
    entryPoints: { run: 'src/cli/run.ts', worker: 'src/render/gate/worker.ts' },
    outdir: FOLDER,
    write: false,
    bundle: true,
    splitting: true,
    format: 'esm',
    define: { 'import.meta.url': 'moduleUrl' },
  });
  const asScript = { format: 'cjs', supported: { 'dynamic-import': false } };
  return Promise.all(
    outputFiles.map(async ({ path, text }) => ({
      name: basename(path, '.js'),
      code: (await transform(text, { ...NODE, ...SHORT, ...asScript })).code,
    })),
  );
}

function getDigest(chunks) {
  const digest = createHash('sha256');
  for (const { name, code } of chunks) digest.update(`${name}\n${code}\n`);
  return digest.digest('hex').slice(0, 16);
}

/** What loads the chunks, under the names by which the programs are asked for. */
async function bundleStart(digest) {
  await build({
    ...NODE,
    ...SHORT,
    absWorkingDir: ROOT,
    entryPoints: { run: 'src/cli/start/run.ts', worker: 'src/cli/start/worker.ts' },
    outdir: FOLDER,
    bundle: true,
    format: 'esm',
    define: { BUILD: JSON.stringify(digest) },
  });
}

/** What runs in the page, each one script; no module of ours is there to be imported. */
async function bundlePageScripts() {
  await build({
    absWorkingDir: ROOT,
    entryPoints: {
      reader: 'src/render/reader/reader.ts',
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
}
