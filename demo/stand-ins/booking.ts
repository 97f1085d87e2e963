import { Hono } from 'hono';

/** A booking widget with a two-part code: a loader once a page, and a block where it is to show. */
export const booking = new Hono();

const LOADER = `(() => {
  const blocks = document.querySelectorAll('[data-trellis-desk]');
  for (const block of blocks) {
    const form = document.createElement('form');
    form.style.cssText = 'box-sizing:border-box;max-width:100%;padding:12px;border:1px solid #c9c2b4;border-radius:4px';
    form.innerHTML = '<label>Workshop <select style="max-width:100%"><option>Seed saving</option><option>Grafting</option></select></label> <button type="button">Book</button>';
    block.replaceChildren(form);
  }
})();
`;

booking.get('/loader.js', (context) =>
  context.body(LOADER, 200, { 'content-type': 'text/javascript' }),
);
