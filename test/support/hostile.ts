import { createSocket, type Socket } from 'node:dgram';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Workshop } from './program.js';
import { isSampled } from './sample.js';

/** A vendor that means no good. */
const ANSWERS: Record<string, (url: URL, answer: ServerResponse) => void> = {
  '/on': (url, answer) =>
    answer.writeHead(302, { location: `/on?${Number(url.search.slice(1)) + 1}` }).end(),
  '/inside': (_url, answer) =>
    answer.writeHead(302, { location: 'https://169.254.169.254/latest' }).end(),
  '/frame': (_url, answer) =>
    answer
      .setHeader('content-type', 'text/html')
      .end(
        '<script>fetch("/probe").then(() => navigator.serviceWorker.register("/sw.js"))</script>',
      ),
  '/status': (_url, answer) => answer.writeHead(999).end(),
  '/sw.js': (_url, answer) =>
    answer
      .setHeader('content-type', 'text/javascript')
      .end('onfetch = (event) => event.respondWith(new Response("taken over"))'),
};

/** A vendor that means no good, at hosts of the house that a workshop is given, and an ear for packets. */
export interface HostileVendor {
  /** The paths that were asked for, and the sizes of packets that came. */
  asked: string[];
  heard: number[];
  listener: Socket;
  close(): void;
}

export async function openHostileVendor(shop: Workshop): Promise<HostileVendor> {
  const asked: string[] = [];
  const heard: number[] = [];
  const vendor: Server = createServer((ask: IncomingMessage, answer) => {
    const url = new URL(ask.url ?? '/', 'http://vendor.example');
    asked.push(url.pathname);
    const respond = ANSWERS[url.pathname];
    if (respond) respond(url, answer);
    else answer.end('as it should be');
  });
  await new Promise<void>((resolve) => vendor.listen(0, '127.0.0.1', resolve));
  const { port } = vendor.address() as AddressInfo;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { "*.loam.example": "http://127.0.0.1:${port}" }`,
  );
  const listener = createSocket('udp4', (message) => heard.push(message.length));
  await new Promise<void>((resolve) => listener.bind(0, '127.0.0.1', resolve));
  const close = () => {
    vendor.close();
    listener.close();
  };
  return { asked, heard, listener, close };
}

export const FULL = 'style="max-width: 100%; border: 0"';

/** What it does, its code, and all that is to be found. */
const HOSTILE: [string, string, string[]][] = [
  ['a loop in the page', '<p>x</p><script>\nfor (;;) {}\n</script>', ['page-hangs']],
  [
    'a loop in a frame of the page’s own',
    `<iframe title="x" ${FULL} srcdoc="<script>for(;;){}</script>"></iframe>`,
    ['page-hangs', 'frame-height-collapsed', 'off-centre'],
  ],
  [
    'dialogs without end',
    '<script>while (confirm("again?") !== 1) ;</script>',
    ['page-taken-over'],
  ],
  [
    'promises without end',
    '<script>(function on() { Promise.resolve().then(on) })()</script>',
    ['page-hangs'],
  ],
  ['reloading', '<script>location.reload()</script>', ['page-taken-over']],
  [
    'leaving',
    '<script>location = "https://maps.fernmap.example/embed/x"</script>',
    ['page-taken-over'],
  ],
  [
    'leaving by a form',
    '<p>x</p><form id="f" action="https://maps.fernmap.example/"></form><script>f.submit()</script>',
    ['page-taken-over'],
  ],
  [
    'a frame that would take the page along',
    `<iframe title="x" ${FULL} src="data:text/html,<script>top.location='https://fernmap.example'</script>"></iframe>`,
    ['frame-height-collapsed', 'off-centre'],
  ],
  ['a refresh', '<meta http-equiv="refresh" content="0; url=/elsewhere">', ['page-taken-over']],
  ['debugger', '<script>debugger;</script>', []],
  [
    'a new window',
    '<script>open("https://maps.fernmap.example/embed/x")</script>',
    ['page-taken-over'],
  ],
  ['going back', '<p>x</p><script>history.back()</script>', ['page-taken-over']],
  ['an empty page', '<p>x</p><script>location = "about:blank"</script>', ['page-taken-over']],
  [
    'a page by script',
    '<p>x</p><script>location = "javascript:\'x\'"</script>',
    ['page-taken-over'],
  ],
  [
    'a page out of a blob',
    '<p>x</p><script>location = URL.createObjectURL(new Blob(["x"], { type: "text/html" }))</script>',
    ['page-taken-over'],
  ],
  ['a path of slashes', '<img alt="Beans" src="/.//"><img alt="Beans" src="//%zz.example/">', []],
  [
    'a status of the vendor’s own',
    '<img alt="Beans" src="https://static.loam.example/status">',
    [],
  ],
  [
    'a port that there is not',
    '<p>x</p><script>fetch("https://x.loam.example:65536/").catch(() => 0)</script>',
    [],
  ],
  ['printing', '<p>x</p><script>print()</script>', ['page-taken-over']],
  [
    'redirects without end',
    '<img alt="Beans" src="https://static.loam.example/on?0">',
    ['picture-missing'],
  ],
  [
    'a redirect to a metadata address',
    '<img alt="Beans" src="https://static.loam.example/inside">',
    ['host-private-address'],
  ],
  [
    'a private address from a worker',
    '<script>new Worker(URL.createObjectURL(new Blob(["fetch(\'https://169.254.169.254/\').catch(() => 0)"])))</script>',
    ['host-private-address'],
  ],
  [
    'the loopback by name, in a WebSocket',
    '<script>new WebSocket("ws://localhost:1/")</script>',
    ['host-private-address'],
  ],
  [
    'a file of this machine',
    `<iframe title="x" ${FULL} src="file:///etc/passwd"></iframe>`,
    ['address-works-only-here', 'off-centre'],
  ],
  [
    'a file by other ways',
    '<p>x</p><script>fetch("file:///etc/passwd").catch(() => 0); new Image().src = "file:///etc/passwd"</script>',
    [],
  ],
  [
    '20,000 elements side by side',
    `<div>${'<b>x</b>'.repeat(20_000)}</div>`,
    ['page-scrolls-sideways'],
  ],
  ['20,000 elements deep', `${'<div>'.repeat(20_000)}Beans`, ['tag-left-open']],
  [
    'a huge canvas',
    '<canvas id="c" width="32767" height="32767"></canvas><script>c.getContext("2d").fillRect(0, 0, 9, 9)</script>',
    ['page-scrolls-sideways'],
  ],
  [
    'a bomb in the memory',
    '<script>const all = []; for (;;) all.push(new Array(1e6).fill(Math.random()))</script>',
    ['page-hangs'],
  ],
  [
    'layout without end',
    '<p id="p">x</p><script>let n = 0; (function on() { for (let i = 0; i < 50; i++) { p.style.width = `${n++ % 200}px`; p.offsetWidth } requestAnimationFrame(on) })()</script>',
    [],
  ],
  [
    'fields that hide what their form is',
    '<form><input name="children"><input name="localName"><input name="getAttribute"><img src="https://static.loam.example/x.png"></form><img name="documentElement" alt="">',
    ['control-unnamed', 'picture-without-alt', 'picture-missing', 'obsolete-markup'],
  ],
  [
    'functions of the page that were changed',
    '<script>Array.prototype.map = JSON.stringify = Element.prototype.getBoundingClientRect = () => { throw 1 }</script><p style="width: 900px">x</p>',
    ['page-scrolls-sideways'],
  ],
];

/** What takes the longest to come to an end; `npm run drill` has all of it. */
const LONG = /promises without end|in a frame of the page|elements deep|bomb/;

/** What hostile code does, its code, and all that is to be found; every so many one. */
export function listHostile(every: number): typeof HOSTILE {
  return HOSTILE.filter(
    ([name], at) => isSampled(at, every) && (process.env.MIVKET_ALL || !LONG.test(name)),
  );
}
