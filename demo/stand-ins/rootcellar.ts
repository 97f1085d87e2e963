import { Hono } from 'hono';
import { sendFile } from './files.js';

/** A host of pictures and fonts. */
export const rootcellar = new Hono();

rootcellar.get('/moved.png', (context) => context.redirect('https://10.0.0.9/moved.png'));

rootcellar.get('/:file{[a-z-]+\\.(png|woff2)}', (context) =>
  sendFile(context.req.param('file'), undefined, {
    'access-control-allow-origin': '*',
    'cache-control': 'max-age=3600',
  }),
);
