import { Hono } from 'hono';
import { html } from 'hono/html';
import { sendFile } from './files.js';

/** A video platform: a page to embed, a page to watch that refuses frames, and the media files. */
export const player = new Hono();

player.get('/embed/:film', (context) => {
  const film = context.req.param('film').replace(/\W/g, '');
  const query = context.req.query();
  const autoplay = query.autoplay === '1';
  const muted = query.quiet === '1';
  return context.html(
    html`<!doctype html><title>Loam player</title>
      <style>
        html,
        body {
          margin: 0;
          height: 100%;
          background: #1d1b18;
        }
        video {
          width: 100%;
          height: 100%;
        }
      </style>
      <video
        src="https://media.loam.example/${film}.mp4"
        controls
        playsinline
        ${autoplay ? 'autoplay' : ''}
        ${muted ? 'muted' : ''}
      ></video>`,
  );
});

player.get('/watch/:film', (context) => {
  context.header('x-frame-options', 'DENY');
  return context.html(
    html`<!doctype html><title>Watch on Loam</title>
      <h1>${context.req.param('film')}</h1>`,
  );
});

player.get('/sign-in', (context) =>
  context.html(
    html`<!doctype html><title>Sign in to Loam</title>
      <form>
        <label>Password <input type="password" /></label>
      </form>`,
  ),
);

player.get('/forbidden', (context) => {
  context.header('content-security-policy', "frame-ancestors 'none'");
  return context.html(html`<!doctype html><title>Loam</title>`);
});

player.get('/status/:code', (context) =>
  context.text('Loam', Number(context.req.param('code')) as 403),
);

player.get('/moved/:rest{.+}', (context) => context.redirect(`/${context.req.param('rest')}`));

/** A film as another type. */
player.get('/as/:type/:file{[a-z]+\\.mp4}', (context) => {
  const type = context.req.param('type');
  return sendFile(context.req.param('file'), context.req.header('range'), {
    'content-type': type === 'octet-stream' ? 'application/octet-stream' : `video/${type}`,
    'access-control-allow-origin': '*',
  });
});

/** A film whose pictures and sound are in formats that nobody knows. */
player.get('/unplayable.mp4', async () => {
  const file = await sendFile('talk.mp4', undefined).arrayBuffer();
  const text = Buffer.from(file)
    .toString('latin1')
    .replaceAll('avc1', 'zzz1')
    .replaceAll('mp4a', 'zzz2');
  return new Response(Buffer.from(text, 'latin1'), { headers: { 'content-type': 'video/mp4' } });
});

player.get('/:file{[a-z]+\\.mp4}', (context) =>
  sendFile(context.req.param('file'), context.req.header('range'), {
    'access-control-allow-origin': '*',
  }),
);
