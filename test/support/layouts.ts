import fc, { type GeneratorValue } from 'fast-check';

/** A paste that may be too wide, and what it is made of. */
export interface Layout {
  kinds: string[];
  code: string;
}

const WORDS =
  'sow thinly and water well beans peas pumpkins leeks chard rocket sorrel in rows of two under glass until the frost has gone'.split(
    ' ',
  );
const LONG = 'Seedbankgenossenschaftsversammlungsprotokoll';
const ADDRESS =
  'https://static.rootcellar.example/lists/2026/spring/varieties/heritage-and-open-pollinated-beans.html';
const PICTURE =
  "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='700' height='200'%3E%3C/svg%3E";
const MAP = 'title="Map" src="https://maps.fernmap.example/embed/x"';
const TALK = 'controls src="https://media.loam.example/talk.mp4"';

/** Makes pieces of pastes; what declares something does so on its tag, in a sheet, or under a condition. */
class Maker {
  readonly css: string[] = [];
  #classes = 0;

  constructor(readonly draw: GeneratorValue) {}

  pick<T>(list: readonly T[]): T {
    return list[this.int(0, list.length - 1)]!;
  }

  int(from: number, to: number): number {
    return this.draw(fc.integer, { min: from, max: to });
  }

  /** So often of a hundred times; the smaller layout is the one without. */
  often(percent: number): boolean {
    return this.int(0, 99) >= 100 - percent;
  }

  text(words: number): string {
    return Array.from({ length: words }, () => this.pick(WORDS)).join(' ');
  }

  width(): string {
    return `${this.pick([this.int(300, 420), this.int(420, 700), this.int(700, 1300)])}px`;
  }

  paint(): string {
    return this.often(80) ? 'background: #eee' : 'border: 1px solid #999';
  }

  /** The attributes of a tag that has these declarations. */
  put(...declarations: string[]): string {
    const list = declarations.filter(Boolean).join('; ');
    const how = this.int(0, 99);
    if (how < 50) return ` style="${list}"`;
    const name = `c${++this.#classes}`;
    const rule = `.${name} { ${list} }`;
    if (how < 80) this.css.push(rule);
    else if (how < 90) this.css.push(`@media (max-width: 900px) { ${rule} }`);
    else
      this.css.push(
        `@media (min-width: 200px) { ${rule} }`,
        `@media print { .${name} { width: 900px } }`,
      );
    return ` class="${name}"`;
  }

  box(inside: string, ...declarations: string[]): string {
    return `<div${this.put(...declarations, this.paint())}>${inside}</div>`;
  }

  times(from: number, to: number, make: () => string): string {
    return Array.from({ length: this.int(from, to) }, make).join('');
  }
}

type Kind = (m: Maker, inner: () => string) => string;

const painted = (m: Maker) => `<div style="${m.paint()}">${m.text(3)}</div>`;

/** What everyday pastes do. */
const KINDS: Record<string, Kind> = {
  width: (m, inner) => m.box(inner(), `width: ${m.width()}`),
  minWidth: (m, inner) => m.box(inner(), 'width: 100%', `min-width: ${m.width()}`),
  padded: (m, inner) => m.box(inner(), 'width: 100%', `padding: 0 ${m.int(6, 60)}px`),
  viewport: (m, inner) => m.box(inner(), 'width: 100vw'),
  calc: (m, inner) => m.box(inner(), `width: calc(100% + ${m.int(10, 80)}px)`),
  margin: (m, inner) =>
    m.box(
      inner(),
      m.pick([
        `margin: 0 -${m.int(20, 80)}px`,
        `margin-right: -${m.int(30, 90)}px`,
        `margin-left: ${m.int(200, 400)}px; width: 200px`,
      ]),
    ),
  offset: (m, inner) => m.box(inner(), 'position: relative', `left: ${m.int(30, 300)}px`),
  absolute: (m) =>
    `<div style="position: relative; height: 80px">${m.box(m.text(4), 'position: absolute', `left: ${m.int(0, 200)}px`, `width: ${m.width()}`)}</div>`,
  transform: (m, inner) =>
    m.box(
      inner(),
      m.pick([
        `transform: translateX(${m.int(40, 300)}px)`,
        `translate: ${m.int(40, 200)}px`,
        `transform: scale(1.${m.int(2, 6)})`,
      ]),
    ),
  both: (m, inner) =>
    m.box(inner(), 'margin-left: -8px', `transform: translateX(${m.int(40, 120)}px)`),
  nowrap: (m) =>
    `<p${m.put(m.pick(['white-space: nowrap', 'white-space: pre']), m.paint())}>${m.text(m.int(10, 25))}</p>`,
  inherited: (m) =>
    `<div${m.put('white-space: nowrap')}><p style="${m.paint()}">${m.text(m.int(10, 25))}</p></div>`,
  longWord: (m) =>
    `<p${m.put(`font-size: ${m.int(16, 50)}px`)}>${m.text(2)} ${m.pick([LONG, ADDRESS])} ${m.text(2)}</p>`,
  plainWord: (m) => `<p>${m.text(2)} ${m.pick([ADDRESS, LONG + LONG])}</p>`,
  link: (m) => `<p>${m.text(3)} <a href="/beans">${ADDRESS}</a></p>`,
  pre: (m) => `<pre>${m.text(m.int(14, 30))}</pre>`,
  code: () => `<p><code>${ADDRESS}</code></p>`,
  picture: (m) =>
    `<img alt="Beans" src="${PICTURE}"${m.pick([
      '',
      ` width="${m.int(400, 900)}"`,
      m.put(`width: ${m.width()}`),
      m.put(`min-width: ${m.int(330, 600)}px`),
      ` width="${m.int(400, 800)}" height="300"`,
    ])}>`,
  figure: (m) =>
    `<figure${m.put(m.pick(['width: 100%', 'margin: 0 40px; min-width: 300px']))}><img alt="Peas" src="${PICTURE}" style="max-width: 100%"></figure>`,
  quote: (m) => `<blockquote${m.put('width: 100%', m.paint())}>${m.text(6)}</blockquote>`,
  row: (m) =>
    `<div${m.put('display: flex', m.often(50) ? `gap: ${m.int(5, 40)}px` : '')}>${m.times(
      2,
      5,
      () =>
        m.box(
          m.text(3),
          m.pick([
            `min-width: ${m.int(90, 260)}px`,
            `flex: 0 0 ${m.int(100, 300)}px`,
            `flex-shrink: 0; width: ${m.int(100, 240)}px`,
            `width: ${m.int(100, 300)}px; flex: none`,
          ]),
        ),
    )}</div>`,
  rowWord: (m) =>
    `<div${m.put('display: flex', 'gap: 10px')}><div>${m.pick([ADDRESS, LONG])}</div>${painted(m)}</div>`,
  menu: (m) =>
    `<ul${m.put('display: flex', 'list-style: none', `gap: ${m.int(10, 40)}px`)}>${m.times(4, 8, () => `<li>${m.pick(['Pumpkins', 'Workshops', 'Glasshouse', 'Members'])}</li>`)}</ul>`,
  grid: (m) =>
    `<div${m.put(
      'display: grid',
      m.pick([
        `grid-template-columns: repeat(${m.int(2, 4)}, ${m.int(120, 300)}px)`,
        `grid-template-columns: repeat(auto-fill, minmax(${m.int(320, 500)}px, 1fr))`,
        `grid-template-columns: ${m.int(200, 400)}px 1fr`,
        `grid-auto-flow: column; grid-auto-columns: ${m.int(100, 300)}px`,
      ]),
      `gap: ${m.int(0, 30)}px`,
    )}>${m.times(2, 5, () => painted(m))}</div>`,
  gridWord: (m) =>
    `<div${m.put('display: grid', 'grid-template-columns: 1fr 1fr')}><div style="${m.paint()}">${m.pick([ADDRESS, LONG])}</div>${painted(m)}</div>`,
  gridPicture: (m) =>
    `<div${m.put('display: grid', 'grid-template-columns: 1fr 1fr')}><img alt="Leeks" src="${PICTURE}">${painted(m)}</div>`,
  gap: (m) =>
    `<div${m.put('display: grid', 'grid-template-columns: repeat(3, 1fr)', `gap: ${m.int(100, 300)}px`)}>${painted(m)}${painted(m)}${painted(m)}</div>`,
  columns: (m) =>
    `<div${m.put('columns: 3', `column-gap: ${m.int(120, 300)}px`)}><p style="${m.paint()}">${m.text(20)}</p></div>`,
  indent: (m) => `<p${m.put(`text-indent: ${m.int(300, 500)}px`)}>${m.text(8)}</p>`,
  table: (m) =>
    `<table${m.put(m.pick([`width: ${m.width()}`, 'width: 100%', 'border-collapse: collapse']))}><tr>${m.times(
      2,
      6,
      () =>
        `<td${m.pick(['', ` width="${m.int(90, 200)}"`, ` style="min-width: ${m.int(90, 250)}px"`, ' style="white-space: nowrap"', ' style="padding: 10px 30px"'])}>${m.text(m.int(1, 5))}</td>`,
    )}</tr></table>`,
  oldTable: (m) =>
    `<table width="${m.int(400, 800)}" border="1"><tr><td>${m.text(3)}</td><td>${m.text(4)}</td></tr></table>`,
  field: (m) =>
    `<p>${m.pick([
      `<input size="${m.int(60, 120)}" aria-label="Seed">`,
      `<textarea cols="${m.int(60, 120)}" aria-label="Note"></textarea>`,
      `<select aria-label="Bed"><option>${m.text(20)}</option></select>`,
      `<input aria-label="Seed"${m.put(`width: ${m.width()}`)}>`,
    ])}</p>`,
  button: (m) => `<button${m.put('white-space: nowrap')}>${m.text(14)}</button>`,
  frame: (m) =>
    `<iframe ${MAP}${m.pick([
      ` width="${m.int(300, 900)}" height="300" style="border: 0"`,
      m.put(`width: ${m.width()}`, 'height: 300px', 'border: 0'),
      ' width="560" height="315" allowfullscreen style="border:0"',
      ' width="600" height="300" style="border: 0; min-width: 600px"',
    ])}></iframe>`,
  film: (m) =>
    `<video ${TALK}${m.pick([` width="${m.int(400, 900)}" height="300"`, m.put(`width: ${m.width()}`)])}></video>`,
  generated(m) {
    m.css.push(
      `.line::after { content: ""; display: block; width: ${m.width()}; height: 2px; background: #999 }`,
    );
    return `<p class="line">${m.text(4)}</p>`;
  },
  float: (m) => m.box(m.text(4), 'float: left', `width: ${m.width()}`),
  inlineBlock: (m) =>
    `<p><span${m.put('display: inline-block', `width: ${m.width()}`, m.paint())}>${m.text(3)}</span></p>`,
  inline: (m) =>
    `<p>${m.text(2)} <span${m.put('width: 900px', 'white-space: nowrap')}>${m.text(14)}</span></p>`,
  nested: (m) =>
    m.box(
      `<div${m.put(`width: ${m.int(500, 900)}px`, 'background: #ddd')}>${m.text(5)}</div>`,
      `width: ${m.int(800, 1300)}px`,
    ),
  zoom: (m) => m.box(m.text(5), `zoom: 1.${m.int(5, 9)}`, 'min-width: 250px'),
  drawing: (m) =>
    `<svg width="${m.int(400, 900)}" height="80"${m.often(50) ? ' viewBox="0 0 700 80"' : ''} role="img" aria-label="Line"><rect width="700" height="80"/></svg>`,
  fieldset: (m) =>
    `<fieldset><legend>Beds</legend><p style="width: ${m.width()}; ${m.paint()}">${m.text(4)}</p></fieldset>`,
  fromTheRight: (m) => `<div dir="rtl">${m.box(m.text(5), `width: ${m.width()}`)}</div>`,
  clipped: (m) =>
    `<div style="overflow: ${m.pick(['hidden', 'auto'])}">${m.box(m.text(4), `width: ${m.width()}`)}</div>`,
  atTheEnd: (m) =>
    `<div style="display: flex; justify-content: flex-end">${m.box(m.text(4), `width: ${m.width()}`, 'flex: none')}</div>`,
  ratio: (m) => m.box(m.text(3), `height: ${m.int(200, 400)}px`, 'aspect-ratio: 2 / 1'),
  letters: (m) =>
    `<h2${m.put(`font-size: ${m.int(40, 90)}px`)}>${m.pick(['Seedbankgenossenschaft', 'Members’ glasshouse opening'])}</h2>`,
  sound: (m) => m.box(`<p>${m.text(20)}</p>`, 'max-width: 600px'),
};

const NAMES = Object.keys(KINDS);

function makeLayout(draw: GeneratorValue, first: string | null): Layout {
  const m = new Maker(draw);
  const kinds: string[] = [];
  const make = (name: string, depth: number): string => {
    kinds.push(name);
    const inner = () =>
      depth > 0 && m.often(40) ? make(m.pick(NAMES), depth - 1) : `<p>${m.text(5)}</p>`;
    return KINDS[name]!(m, inner);
  };
  const body = [make(first ?? m.pick(NAMES), 2)];
  if (m.often(30)) body.push(make(m.pick(NAMES), 2));
  const sheet = m.css.length > 0 ? [`<style>\n${m.css.join('\n')}\n</style>`] : [];
  const code = [...sheet, ...body].join('\n');
  return { kinds, code: m.often(10) ? code.replaceAll('\n', '\r\n') : code };
}

/** Layouts of whatever kind, or such that begin with one; one that fails is made as small as it still fails. */
export const layouts = (first: string | null = null) =>
  fc.gen().map((draw) => makeLayout(draw, first));

/** One of each kind. */
export function listEach(seed: number): Layout[] {
  return NAMES.flatMap((name) => fc.sample(layouts(name), { numRuns: 1, seed }));
}
