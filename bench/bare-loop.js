// What somebody would script by hand: the same browser, each snippet at each width in a fresh
// context, and one screenshot of it. It reaches page and vendors as the audit does, through a gate.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import puppeteer from 'puppeteer-core';
import { findBrowser } from '../dist/src/render/browser/find.js';
import { makeKey } from '../dist/src/render/gate/key.js';
import { Gates } from '../dist/src/render/gate/gates.js';

const ORIGIN = 'https://www.seedlibrary.example';

/**
 * Runs the loop; resolves to the time it took, ms.
 * @param wait how long each page is given after its load, ms
 */
export async function runBareLoop(texts, widths, reroute, wait = 0) {
  const program = await findBrowser();
  const key = makeKey();
  const start = performance.now();
  const gates = new Gates({ key, distrusted: null, recordTo: null, recording: null });
  // Without a password: to show one, the driver would hold up every request.
  const gate = await gates.open({ origin: ORIGIN, reroute, offline: false }, null);
  const browser = await puppeteer.launch({
    executablePath: program.path,
    headless: 'shell',
    env: { ...process.env, ...program.env },
    args: [
      `--proxy-server=http://127.0.0.1:${gate.port}`,
      `--ignore-certificate-errors-spki-list=${key.spki}`,
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
    ],
  });
  for (const text of texts) {
    const html = `<!doctype html><meta name="viewport" content="width=device-width"><main style="max-width: 680px; margin: 16px">${text}</main>`;
    await gate.setPage({ html, headers: {}, root: null }, { snippet: '', view: '' });
    for (const width of widths) {
      const context = await browser.createBrowserContext();
      const tab = await context.newPage();
      await tab.setViewport({ width, height: 800 });
      await tab.goto(`${ORIGIN}/`, { waitUntil: 'load' });
      if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
      await tab.screenshot();
      await context.close();
    }
  }
  await browser.close();
  await gates.close();
  return performance.now() - start;
}

// Started by itself, with what to look at in a file.
if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { texts, widths, reroute } = JSON.parse(readFileSync(process.argv[2], 'utf8'));
  await runBareLoop(texts, widths, reroute);
}
