// What somebody would script by hand: the same browser, each snippet at each width in a fresh
// context, and one screenshot of it.
import { createServer } from 'node:http';
import puppeteer from 'puppeteer-core';
import { findBrowser } from '../dist/src/render/browser/find.js';

/** Runs the loop; resolves to the time it took, ms. Vendors are reached through the stand-ins. */
export async function runBareLoop(texts, widths, standIns) {
  const program = await findBrowser();
  let page = '';
  const server = createServer((_ask, answer) =>
    answer.setHeader('content-type', 'text/html').end(page),
  );
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${server.address().port}/`;
  const start = performance.now();
  const browser = await puppeteer.launch({
    executablePath: program.path,
    headless: 'shell',
    env: { ...process.env, ...program.env },
    args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])],
  });
  for (const text of texts) {
    // Without a gate the loop cannot give the stand-ins their names: they answer with a short 404.
    const reached = text.replace(/https:\/\/([a-z.]+\.example)/g, standIns);
    page = `<!doctype html><meta name="viewport" content="width=device-width"><main style="max-width: 680px; margin: 16px">${reached}</main>`;
    for (const width of widths) {
      const context = await browser.createBrowserContext();
      const tab = await context.newPage();
      await tab.setViewport({ width, height: 800 });
      await tab.goto(address, { waitUntil: 'load' });
      await tab.screenshot();
      await context.close();
    }
  }
  await browser.close();
  const took = performance.now() - start;
  server.close();
  return took;
}
