import { randomBytes } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { getRequestListener } from '@hono/node-server';
import { Hono, type Context } from 'hono';
import { html } from 'hono/html';
import { streamSSE } from 'hono/streaming';
import { ToolError } from '../../core/errors.js';
import { describeFault } from '../../core/words/fault.js';

/** The report as it stands now, on a page of this machine's own that is told when it is another. */
export class WatchPage {
  readonly origin: string;
  #server: Server;
  #report: () => AsyncIterable<string> | null;
  #listeners = new Set<(event: PageEvent) => void>();
  #state: PageEvent = { event: 'state', data: 'looking' };
  #version = 0;

  /**
   * @param port 0: any
   * @param report makes it; null before there is one
   * @throws ToolError `bad-option` where nothing can listen there
   */
  static async open(port: number, report: () => AsyncIterable<string> | null): Promise<WatchPage> {
    const server = createServer();
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(port, '127.0.0.1', resolve);
    }).catch((error: unknown) => {
      const words = `\`--port ${port}\` cannot be used: ${describeFault(error)}.`;
      throw new ToolError('bad-option', words, { cause: error });
    });
    return new WatchPage(server, report);
  }

  private constructor(server: Server, report: () => AsyncIterable<string> | null) {
    this.#server = server;
    this.#report = report;
    this.origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    server.on('request', getRequestListener(this.#makeSite().fetch));
  }

  /** Something is looked at again, or stands; said on the page. */
  say(words: string): void {
    this.#state = { event: 'state', data: words };
    this.#tell(this.#state);
  }

  /** There is another report. */
  renew(): void {
    this.#version++;
    this.#tell({ event: 'report', data: String(this.#version) });
  }

  async close(): Promise<void> {
    this.#server.closeAllConnections();
    await new Promise((resolve) => this.#server.close(resolve));
  }

  #tell(event: PageEvent): void {
    for (const listener of this.#listeners) listener(event);
  }

  #makeSite(): Hono {
    const site = new Hono();
    // A page of another site may have its name lead here: this is for whoever asks for this machine.
    site.use(async (context, next) => {
      const host = context.req.header('host') ?? '';
      if (!/^(127\.0\.0\.1|localhost)(:\d+)?$/.test(host)) return context.text('Not here.', 403);
      context.header('cache-control', 'no-store');
      context.header('x-content-type-options', 'nosniff');
      context.header('cross-origin-resource-policy', 'same-origin');
      await next();
    });
    site.get('/', (context) => showShell(context));
    site.get('/report', (context) => this.#show(context));
    site.get('/events', (context) => this.#follow(context));
    return site;
  }

  async #show(context: Context): Promise<Response> {
    let text = '';
    for await (const piece of this.#report() ?? []) text += piece;
    return context.html(
      text ||
        html`<!doctype html><title>Mivket</title>
          <p>Nothing is known yet.</p>`,
    );
  }

  #follow(context: Context): Response {
    return streamSSE(context, async (stream) => {
      const waiting: PageEvent[] = [this.#state, { event: 'report', data: String(this.#version) }];
      let wake: () => void = () => undefined;
      const listener = (event: PageEvent) => {
        waiting.push(event);
        wake();
      };
      this.#listeners.add(listener);
      stream.onAbort(() => {
        this.#listeners.delete(listener);
        wake();
      });
      while (!stream.aborted) {
        for (const event of waiting.splice(0)) await stream.writeSSE(event);
        if (waiting.length === 0) await new Promise<void>((resolve) => (wake = resolve));
      }
    });
  }
}

interface PageEvent {
  event: 'state' | 'report';
  data: string;
}

/** Shows the report, which has no code of its own, and shows it anew where one was told. */
const SCRIPT = `
const report = document.querySelector('iframe');
const state = document.querySelector('output');
let known = '';
const events = new EventSource('/events');
events.addEventListener('state', ({ data }) => { state.textContent = data; });
events.addEventListener('error', () => { state.textContent = 'The watching has ended.'; });
events.addEventListener('report', ({ data }) => {
  if (data === known) return;
  known = data;
  const down = report.contentWindow?.scrollY ?? 0;
  report.addEventListener('load', () => {
    document.title = report.contentDocument.title;
    report.contentWindow.scrollTo(0, down);
  }, { once: true });
  report.src = '/report?' + data;
});
`;

const STYLE = `
html, body { height: 100%; margin: 0; } body { display: flex; flex-direction: column; }
output { display: block; padding: .4rem 1rem; font: .85rem system-ui, Arial, sans-serif; color: #faf8f4; background: #1d1b18; }
iframe { flex: 1; width: 100%; border: 0; }
`;

function showShell(context: Context): Response | Promise<Response> {
  const nonce = randomBytes(16).toString('base64');
  context.header(
    'content-security-policy',
    `default-src 'none'; script-src 'nonce-${nonce}'; style-src 'unsafe-inline'; img-src data:; connect-src 'self'; frame-src 'self'; frame-ancestors 'none'`,
  );
  return context.html(
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Mivket</title><style>${STYLE}</style></head><body><output>looking</output><iframe title="The report" sandbox="allow-same-origin"></iframe><script nonce="${nonce}">${SCRIPT}</script></body></html>`,
  );
}
