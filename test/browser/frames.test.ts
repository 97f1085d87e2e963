import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { openLive, type Live } from '../support/live.js';

let live: Live;

beforeAll(async () => {
  live = await openLive();
});

afterAll(() => live.close());

test('documents in frames are measured, of whatever origin, each at its frame', async () => {
  const style = 'style="border: 0; width: 240px; height: 100px"';
  const evidence = await live.look(`
    <iframe title="Beds" ${style} srcdoc="<body style='margin: 0'><p style='margin: 0; height: 700px'>Beds</p>"></iframe>
    <iframe title="Map" ${style} src="https://maps.fernmap.example/embed/glasshouse"></iframe>
    <iframe title="Nothing" ${style} sandbox srcdoc="<div style='width: 500px'>x</div>"></iframe>`);
  const [phone] = evidence;
  const of = (title: string) =>
    phone!.frames.find(({ attributes }) => attributes.title === title)!.inner;
  expect(of('Beds')).toMatchObject({ height: 100, scrollHeight: 700 });
  expect(of('Map')).toMatchObject({ height: 100 });
  expect(of('Nothing')!.scrollWidth).toBeGreaterThanOrEqual(500);
});

test.each(['open', 'closed'])(
  'documents of frames in %s shadow roots are measured too',
  async (mode) => {
    const style = 'style="border: 0; width: 240px; height: 100px"';
    const evidence = await live.look(`<bed-notes></bed-notes><script>
    customElements.define('bed-notes', class extends HTMLElement {
      connectedCallback() {
        this.attachShadow({ mode: '${mode}' }).innerHTML = \`
          <iframe title="Map" ${style} src="https://maps.fernmap.example/embed/glasshouse"></iframe>
          <iframe title="Beds" ${style} srcdoc="<body style='margin: 0'><p style='margin: 0; height: 700px'>Beds</p>"></iframe>\`;
      }
    });
  </script>`);
    const inner = evidence[0]!.frames.map((frame) => [frame.attributes.title, frame.inner]);
    expect(inner).toEqual([
      ['Map', expect.objectContaining({ height: 100, scrollHeight: 100 })],
      ['Beds', expect.objectContaining({ scrollHeight: 700, natural: 700 })],
    ]);
  },
);

test('a frame that hangs is not waited for, and costs the others nothing', async () => {
  const evidence = await live.look(`
    <iframe title="Hangs" sandbox="allow-scripts" srcdoc="<script>onload = () => setTimeout(() => { for (;;); })</script>"></iframe>
    <iframe title="Map" src="https://maps.fernmap.example/embed/glasshouse"></iframe>`);
  const [phone] = evidence;
  expect(phone!.frames.map(({ inner }) => inner !== null)).toEqual([false, true]);
  expect(phone!.scripts.hung).toBeNull();
});
