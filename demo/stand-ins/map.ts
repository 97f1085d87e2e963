import { Hono } from 'hono';
import { html } from 'hono/html';

/** A map service: a page to embed that fills its frame, and a small badge. */
export const map = new Hono();

map.get('/embed/:place', (context) =>
  context.html(
    html`<!doctype html><title>Fernmap</title>
      <style>
        html,
        body {
          margin: 0;
          height: 100%;
          overflow: hidden;
        }
        body {
          background:
            linear-gradient(#e8e2d2 1px, transparent 1px) 0 0 / 40px 40px,
            linear-gradient(90deg, #e8e2d2 1px, #f4f0e6 1px) 0 0 / 40px 40px;
          font:
            14px Arimo,
            sans-serif;
        }
        b {
          position: absolute;
          left: 50%;
          top: 50%;
          transform: translate(-50%, -50%);
          background: #3d5a73;
          color: #fff;
          padding: 6px 10px;
          border-radius: 3px;
        }
      </style>
      <b>${context.req.param('place')}</b>`,
  ),
);
