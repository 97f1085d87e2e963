import { randomBytes } from 'node:crypto';
import { Hono } from 'hono';
import { sendFile } from './files.js';
import { makeGif } from './gif.js';

/** A host of pictures, fonts and packages of code. */
export const rootcellar = new Hono();

rootcellar.get('/moved.png', (context) => context.redirect('https://10.0.0.9/moved.png'));

rootcellar.get('/:file{[a-z-]+\\.(png|woff2)}', (context) =>
  sendFile(context.req.param('file'), undefined, {
    'access-control-allow-origin': '*',
    'cache-control': 'max-age=3600',
  }),
);

/** Rain in two frames, without an end, and one frame of it. */
rootcellar.get('/:file{(rain|still)\\.gif}', (context) => {
  const gif = makeGif({ shades: context.req.param('file') === 'rain.gif' ? [0, 1] : [0] });
  return context.body(gif, 200, { 'content-type': 'image/gif' });
});

/** Lightning, for three seconds. */
rootcellar.get('/storm.gif', (context) => {
  const gif = makeGif({
    shades: [0, 1],
    colours: [
      [0x11, 0x22, 0x33],
      [0xff, 0xff, 0xff],
    ],
    ...{ width: 360, height: 300, delay: 10, again: 14 },
  });
  return context.body(gif, 200, { 'content-type': 'image/gif' });
});

rootcellar.get('/type.css', (context) =>
  context.body('.type { font-weight: bold }\n', 200, { 'content-type': 'text/css' }),
);

for (const packages of ['/npm/*', '/@seed/*'])
  rootcellar.get(packages, (context) =>
    context.body('window.beds = [];\n', 200, { 'content-type': 'text/javascript' }),
  );

const WEIGHT = 1_700_000;

/** The same files, with so many bytes behind them that nobody looks at. */
rootcellar.get('/weighty/:file{[a-z-]+\\.png}', async (context) => {
  const file = sendFile(context.req.param('file'), undefined);
  const body = Buffer.concat([Buffer.from(await file.arrayBuffer()), randomBytes(WEIGHT)]);
  return new Response(body, { headers: { 'content-type': 'image/png' } });
});
