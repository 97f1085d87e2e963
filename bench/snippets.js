// What is measured on.
import { readdirSync, readFileSync } from 'node:fs';

const DEMO = new URL('../demo/snippets/', import.meta.url);

/** A widget that fills itself, and adds more after 2 s. */
export const TIMER =
  '<div id="bed"><p>Beans</p></div><script>const bed = document.getElementById("bed"); const add = (text) => bed.append(Object.assign(document.createElement("p"), { textContent: text })); add("Peas"); setTimeout(() => add("Lettuce"), 2000)</script>';

/** The demo's snippets that do nothing slow on purpose. */
export function listDemo() {
  const demo = readdirSync(DEMO).map((name) => readFileSync(new URL(name, DEMO), 'utf8'));
  return demo.filter((text) => !text.includes('alert('));
}

/** Plain ones, as most pastes are. */
export function listPlain(count) {
  return Array.from({ length: count }, (_, i) => {
    return `<style>.b${i} { padding: 8px; background: #efe9dc }</style>\n<div class="b${i}"><h3>Bed ${i}</h3><p>Sow thinly, water well, and wait for the first leaves.</p><ul><li>Beans</li><li>Peas</li></ul></div>`;
  });
}

/** The same, each third too wide for a phone. */
export function listThirdWide(count) {
  return listPlain(count).map((text, i) =>
    i % 3 === 0 ? `${text}<div style="width: 700px; background: #dde">Bed ${i}</div>` : text,
  );
}

/** The same, all too wide for a phone: by a least width, or by words that do not break. */
export function listFaulty(count) {
  return listPlain(count).map((text, i) =>
    i % 2 === 0
      ? `${text}<div style="width: 100%; min-width: ${600 + i}px; padding: 4px">Bed ${i}</div>`
      : text.replace('Beans', `<b style="white-space: nowrap">${'Beans and peas, '.repeat(8)}</b>`),
  );
}

/** Snippets of about 2 kB, as they are pasted: a sheet, a few paragraphs, links and pictures. */
export function listPastes(count) {
  return Array.from({ length: count }, (_, i) => {
    let text = `<style>.b${i} { padding: 8px; background: #efe9dc }\n.b${i} h3 { margin: 0 }</style>\n<div class="b${i}"><h3>Bed ${i}</h3>`;
    for (let k = 0; text.length < 1960; k++)
      text += `<p style="margin: 0 0 ${k}px">Sow thinly, water <a href="/beds/${i}/${k}">bed ${k}</a> well, and wait for the first leaves.</p><img src="/pictures/${k}.png" alt="Bed ${k}" width="90" height="60">`;
    return `${text}</div>`;
  });
}

/** One paste as one person brings it: sound, and with a dozen faults. */
export const ONE = {
  sound:
    '<p>The glasshouse is behind the seed store.</p>\n<iframe src="https://maps.fernmap.example/embed/glasshouse" title="Map: the way to the glasshouse" style="border: 0; width: 100%; height: 320px"></iframe>',
  faulty:
    '<div class="card" style="width: 900px">\n<center><h1>Seed swap</h1></center>\n<img src="https://static.rootcellar.example/beans.png" width="1000">\n<a href="#">More</a>\n<a href="/desk"><img src="https://static.rootcellar.example/beans.png" alt=""></a>\n<p id="a" style="color: #ccc; font-size: 9px">Bring what you have.</p><p id="a">Take what you need.</p>\n<iframe src="https://maps.fernmap.example/embed/x" width="800" height="90"></iframe>\n<video src="https://media.loam.example/talk.mp4" autoplay width="700"></video>\n<iframe widht="3" src="http://maps.fernmap.example/embed/x"></iframe>\n',
};
