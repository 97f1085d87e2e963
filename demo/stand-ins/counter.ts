import { createHash } from 'node:crypto';
import { Hono } from 'hono';

/** A visitor counter whose small script pulls in a heavy one and a beacon from other hosts. */
export const counter = new Hono();

const HEAVY = `(() => {
  const charts = document.createElement('script');
  charts.src = 'https://cdn.tallyroot.example/charts.js';
  document.head.append(charts);
  new Image().src = 'https://beacon.tallyroot.example/hit.gif?page=' + encodeURIComponent(location.pathname);
})();
`;

/** About 200 kB that do not compress away, as bundled code with its data does not. */
function makeCharts(): string {
  const lines = Array.from(
    { length: 2900 },
    (_, i) => `"${createHash('sha512').update(String(i)).digest('base64')}"`,
  );
  return `window.tallyCharts = [\n${lines.join(',\n')}\n];\n`;
}

/** Over 80 kB of functions, of which one is called, or each. */
function makeShelf(all: boolean): string {
  const lines = Array.from({ length: 700 }, (_, i) => {
    const word = createHash('sha512').update(String(i)).digest('hex').slice(0, 90);
    return `shelf.put${i} = function (bed) { return bed + "${word}" };`;
  });
  const call = all ? 'for (const name in shelf) shelf[name](1)' : 'shelf.put1(1)';
  return `(() => { const shelf = {};\n${lines.join('\n')}\n${call} })();\n`;
}

/** Sums that take a while: some 0.7 s on a machine that is four times slower. */
const SUMS = `(() => {
  let sum = 0;
  for (let i = 0; i < 12e6; i++) sum = (sum + Math.sqrt(i)) % 1e6;
  window.tallySum = sum;
})();
`;

/** As much of data. */
function makeBeds(): string {
  return makeCharts()
    .replace('tallyCharts', 'tallyBeds')
    .slice(0, 90_000)
    .replace(/,[^,]*$/, ']');
}

const GIF = Uint8Array.from(atob('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7'), (c) =>
  c.charCodeAt(0),
);
// Modules are fetched as data of another site.
const script = { 'content-type': 'text/javascript', 'access-control-allow-origin': '*' };

counter.get('/heavy.js', (context) => context.body(HEAVY, 200, script));
// The newest of a package is another every week: its host leads on to it.
counter.get('/npm/:name{[a-z]+@latest}/:file', (context) =>
  context.redirect(
    `/npm/${context.req.param('name').replace('latest', '2.1.0')}/${context.req.param('file')}`,
  ),
);
counter.get('/npm/*', (context) => context.body('window.tally = 1;\n', 200, script));
counter.get('/small.js', (context) => context.body('window.tally = { visits: 1 };\n', 200, script));
counter.get('/sums.js', (context) => context.body(SUMS, 200, script));
counter.get('/charts.js', (context) => context.body(makeCharts(), 200, script));
counter.get('/shelf.js', (context) =>
  context.body(makeShelf(context.req.query('all') !== undefined), 200, script),
);
counter.get('/beds.js', (context) => context.body(makeBeds(), 200, script));
counter.get('/hit.gif', (context) => context.body(GIF, 200, { 'content-type': 'image/gif' }));
counter.get('/frame', (context) =>
  context.html(
    '<!doctype html><title>Visits</title><script src="https://cdn.tallyroot.example/charts.js"></script>',
  ),
);
