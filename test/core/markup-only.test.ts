import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { listInsecure } from '../../src/core/markup/insecure.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { judgeMarkup } from '../support/markup-only.js';

function judge(text: string, ids: readonly string[] = CHECKS.map(({ id }) => id)) {
  return judgeMarkup(
    text,
    CHECKS.filter(({ id }) => ids.includes(id)),
  );
}

const AUTOPLAY = ['autoplay-with-sound', 'autoplay-value-ignored'];
const UNNAMED = '<iframe src="https://maps.fernmap.example/">';
const BEANS = '<img src="a.png" alt="Runner beans">';

/** The checks asked, the code, and the pieces they point at. */
const CASES: [ids: string | string[], text: string, pieces: string[]][] = [
  [AUTOPLAY, '<video src="a.mp4" autoplay></video>', ['autoplay']],
  [AUTOPLAY, '<video src="a.mp4" AUTOPLAY=""></video>', ['AUTOPLAY=""']],
  [AUTOPLAY, '<video src="a.mp4" autoplay muted></video>', []],
  // The cause is lighter than what comes of it: both are told.
  [
    AUTOPLAY,
    '<video src="a.mp4" autoplay="false"></video>',
    ['autoplay="false"', 'autoplay="false"'],
  ],
  [AUTOPLAY, "<audio src=a.mp3 controls='no'></audio>", ["controls='no'"]],
  ['frame-fixed-size', '<iframe width="640"></iframe>', ['width="640"']],
  ['frame-fixed-size', '<iframe width=" 640px "></iframe>', ['width=" 640px "']],
  ['frame-fixed-size', '<iframe style="width:640px"></iframe>', ['width:640px']],
  ['frame-fixed-size', '<style>.m { width: 640px }</style><iframe class="m">', ['width: 640px']],
  ['frame-fixed-size', '<style>iframe { max-width: 100% }</style><iframe width="640">', []],
  ['frame-fixed-size', '<iframe width="100%"></iframe><iframe width="120"></iframe>', []],
  ['frame-fixed-size', '<iframe src="//player.loam.example/" width="120">', ['width="120"']],
  ['frame-fixed-size', '<iframe allow="autoplay" width="120"></iframe>', ['width="120"']],
  ['frame-fixed-size', '<iframe allow="fullscreen" allowfullscreen width="120"></iframe>', []],
  ['frame-fixed-size', '<video width="200" src="a.mp4" controls></video>', ['width="200"']],
  ['picture-without-alt', '<img src="a.png">', ['<img src="a.png">']],
  ['picture-without-alt', '<img alt=""><img title="Beans"><img aria-label="Beans">', []],
  ['picture-without-alt', '<img aria-labelledby="b"><i id="b">Beans</i>', []],
  ['picture-without-alt', '<img aria-labelledby="b"><i id="b"></i>', ['<img aria-labelledby="b">']],
  ['picture-without-alt', '<img width="1" height="1"><img role="presentation">', []],
  ['picture-without-alt', '<div hidden><img></div><img style="display: none">', []],
  ['picture-without-alt', '<input type="IMAGE" alt="">', ['<input type="IMAGE" alt="">']],
  ['picture-without-alt', '<map><area href="/a"><area></map>', ['<area href="/a">']],
  ['picture-without-alt', '<b role="img"></b>', ['<b role="img">']],
  ['picture-size-unset', '<img src="a.png" alt="Beans">', ['<img src="a.png" alt="Beans">']],
  ['picture-size-unset', '<img src="a.png" width="9">', ['<img src="a.png" width="9">']],
  ['picture-size-unset', '<img src="a.png" width="9" height="9"><img src="a.png" class="b">', []],
  ['picture-size-unset', '<img src="data:image/png;base64,AA"><img alt="Beans">', []],
  ['picture-never-loaded', '<img data-src="/b.png">', ['data-src="/b.png"']],
  ['picture-never-loaded', '<img src="a.png" data-src="/b.png"><img data-caption="b.png">', []],
  ['picture-never-loaded', '<img data-src="/b.png"><script>load()</script>', []],
  [
    'vector-without-viewbox',
    '<svg width="9" height="9"><path d="M0 0"/></svg>',
    ['<svg width="9" height="9">'],
  ],
  ['vector-without-viewbox', '<svg width="9" height="9" viewBox="0 0 9 9"><path/></svg>', []],
  ['vector-without-viewbox', '<svg width="9" height="9"><defs></defs></svg><svg><path/></svg>', []],
  ['media-cannot-be-started', '<video src="a.mp4"></video>', ['<video src="a.mp4">']],
  ['media-cannot-be-started', '<video src="a.mp4" controls></video><video autoplay></video>', []],
  ['media-cannot-be-started', '<a href="a.mp4"><video src="a.mp4"></video></a>', []],
  ['script-loader-missing', '<fern-map></fern-map>', ['<fern-map>']],
  ['script-loader-missing', '<fern-map>Beds</fern-map><fern-map><p></p></fern-map>', []],
  [
    'script-loader-missing',
    '<style>fern-line { display: block }</style><fern-line></fern-line>',
    [],
  ],
  [
    'script-loaded-twice',
    '<script src="/a.js"></script><script src="/a.js#b"></script>',
    ['src="/a.js#b"'],
  ],
  ['script-loaded-twice', '<script src="/a.js"></script><script src="/a.js?b"></script>', []],
  [
    'script-loaded-twice',
    '<script type="module" src="/a.js"></script><script type="module" src="/a.js"></script>',
    [],
  ],
  [
    'script-loaded-twice',
    '<script src="/j-1.4.js"></script><script src="/j-2.0.js"></script>',
    ['src="/j-2.0.js"'],
  ],
  [
    'frame-only-counts',
    '<iframe src="//tally.example/" width="1"></iframe>',
    ['<iframe src="//tally.example/" width="1">'],
  ],
  [
    'frame-only-counts',
    '<iframe src="/own" width="1"></iframe><iframe src="//tally.example/"></iframe>',
    [],
  ],
  ['frame-only-counts', '<details><iframe src="//tally.example/" hidden></iframe></details>', []],
  [
    'frame-granted-too-much',
    '<iframe src="//tally.example/" allow="camera *"></iframe>',
    ['allow="camera *"'],
  ],
  [
    'frame-granted-too-much',
    '<iframe src="//tally.example/" allow="camera; autoplay *"></iframe>',
    [],
  ],
  [
    'address-carries-secret',
    '<a href="//tally.example/?token=9f8e7d6c5b4a">Tally</a>',
    ['href="//tally.example/?token=9f8e7d6c5b4a"'],
  ],
  ['autoplay-cannot-be-stopped', '<video autoplay muted loop></video>', ['autoplay']],
  [
    'autoplay-cannot-be-stopped',
    '<video autoplay muted loop controls></video><video autoplay muted>',
    [],
  ],
  ['autoplay-cannot-be-stopped', '<video autoplay muted loop></video><script>x()</script>', []],
  [
    'autoplay-without-still',
    '<video autoplay poster=""></video><video autoplay poster="a.png">',
    ['autoplay'],
  ],
  ['autoplay-without-still', '<video autoplay style="background: url(a.png)"></video><video>', []],
  [
    'media-sources-disagree',
    '<video src="/a.mp4" data-src="/b.mp4"></video>',
    ['data-src="/b.mp4"'],
  ],
  [
    'media-sources-disagree',
    '<video src="/a.mp4" data-src="/b.webm"></video>',
    ['data-src="/b.webm"'],
  ],
  [
    'media-sources-disagree',
    '<video><source src="/a.mp4" data-src="/b.mp4"></video>',
    ['data-src="/b.mp4"'],
  ],
  [
    'media-sources-disagree',
    '<p data-video-url="/b.mp4"><audio src="/a.mp4"></audio></p>',
    ['data-video-url="/b.mp4"'],
  ],
  [
    'media-sources-disagree',
    '<video data-mp4="/b.mp4"><source src="/a.webm"><source src="/b.mp4#t=2"></video>',
    [],
  ],
  [
    'media-sources-disagree',
    '<p data-src="/b.mp4"><video src="/a.mp4"></video><video src="/c.mp4"></video></p>',
    [],
  ],
  [
    'media-sources-disagree',
    '<video data-src="/b.mp4"></video><video data-hd="/b.mp4" src="/a.mp4"></video>',
    [],
  ],
  [
    'media-sources-disagree',
    '<video data-src="/b.mp4" src="data:video/mp4,"></video><p data-url="/b"><video src="/a.mp4"></video></p>',
    [],
  ],
  ['media-sources-disagree', '<video data-file="7" src="/a.mp4"></video>', []],
  [
    'script-without-integrity',
    '<script src="//cdn.x.example/a@1.2.3/a.js"></script><script src="//cdn.x.example/a@1.2.3/a.js" integrity="sha256-x"></script>',
    ['src="//cdn.x.example/a@1.2.3/a.js"'],
  ],
  ['vector-unnamed', '<a href="/"><svg/><svg/></a><button>x<svg/></button>', ['<svg/>']],
  ['vector-unnamed', '<svg role="img"><desc>x</desc></svg>', ['<svg role="img">']],
  [
    'vector-unnamed',
    '<svg role="img"><title>x</title></svg><svg aria-hidden="true" role="img">',
    [],
  ],
  [
    'control-unnamed',
    '<a href="/"></a><input><select></select>',
    ['<a href="/">', '<input>', '<select>'],
  ],
  ['control-unnamed', '<label>x<input></label><input aria-labelledby="outside">', []],
  ['control-unnamed', '<label><textarea>x</textarea></label>', ['<textarea>']],
  [
    'control-unnamed',
    '<a href="/"><svg/></a><a href="/"><img alt=""></a><a href="/"><img></a>',
    [],
  ],
  [
    'host-private-address',
    '<script src="http://127.0.0.1/a.js"></script>',
    ['src="http://127.0.0.1/a.js"'],
  ],
  ['host-private-address', '<script src="//0x7f.1/a.js"></script>', ['src="//0x7f.1/a.js"']],
  [
    'host-private-address',
    '<a href="http://localhost/">x</a><img src="data:image/png;base64,AA">',
    [],
  ],
  ['attribute-misspelt', '<video mute></video><p clas="a">', ['mute', 'clas="a"']],
  [
    'attribute-misspelt',
    '<p className="a"></p><label htmlFor="b"></label><svg><path strokeWidth="2"/></svg>',
    ['className="a"', 'htmlFor="b"', 'strokeWidth="2"'],
  ],
  ['attribute-misspelt', '<p mute></p><img srcSet="a.png 2x" alt="">', []],
  [
    'attribute-misspelt',
    '<iframe webkitAllowFullScreen mozallowfullscreen msallowfullscreen oallowfullscreen></iframe>',
    [],
  ],
  ['attribute-misspelt', '<p onpointerrun="x()">', ['onpointerrun="x()"']],
  [
    'attribute-misspelt',
    '<p ontouchstart="x()" ontransitionrun="x()" onpointerrawupdate="x()">',
    [],
  ],
  ['frame-unnamed', UNNAMED, [UNNAMED]],
  ['frame-unnamed', '<iframe title="Embedded content"></iframe>', ['title="Embedded content"']],
  ['frame-unnamed', '<iframe title=" "></iframe>', ['title=" "']],
  [
    'frame-unnamed',
    '<iframe aria-label="Map"></iframe><iframe title="Frame of the greenhouse">',
    [],
  ],
  ['frame-unnamed', '<iframe width="1" height="1"></iframe><iframe hidden></iframe>', []],
  [
    'frame-unnamed',
    '<iframe style="display:none"></iframe><p aria-hidden="true"><iframe></iframe></p>',
    [],
  ],
  // What is hidden under a condition is hidden only there, and what is shown under one is shown.
  [
    'frame-unnamed',
    '<style>@media (max-width: 600px) { iframe { display: none } }</style><iframe></iframe>',
    ['<iframe>'],
  ],
  [
    'frame-unnamed',
    '<style>iframe { display: none } @media (min-width: 600px) { iframe { display: block } }</style><iframe></iframe>',
    ['<iframe>'],
  ],
  ['frame-unnamed', '<style>iframe { display: none }</style><iframe></iframe>', []],
  [
    'frame-border-left-on',
    '<iframe></iframe><iframe frameborder="0"></iframe><iframe style="border-width: 0"></iframe><iframe hidden>',
    ['<iframe>'],
  ],
  [
    'page-taken-over',
    '<meta http-equiv=Refresh content="5">',
    ['<meta http-equiv=Refresh content="5">'],
  ],
  ['page-taken-over', '<meta http-equiv="refresh"><meta name="refresh" content="5">', []],
  ['autoplay-without-inline', '<video autoplay muted></video>', ['autoplay']],
  [
    'autoplay-without-inline',
    '<video autoplay playsinline></video><video></video><audio autoplay>',
    [],
  ],
  ['audio-autoplays', '<audio src="a.mp3" autoplay="autoplay"></audio>', ['autoplay="autoplay"']],
  ['audio-autoplays', '<audio autoplay muted></audio><audio controls></audio>', []],
  [
    'frame-autoplay-with-sound',
    '<iframe src="//p.example/e?autoplay=1"></iframe>',
    ['src="//p.example/e?autoplay=1"'],
  ],
  [
    'frame-autoplay-with-sound',
    '<iframe src="//p.example/e#autoPlay=true">',
    ['src="//p.example/e#autoPlay=true"'],
  ],
  [
    'frame-autoplay-with-sound',
    '<embed src="//p.example/e?auto_play=yes">',
    ['src="//p.example/e?auto_play=yes"'],
  ],
  ['frame-autoplay-with-sound', '<iframe src="//p.example/e?autoplay=1&amp;mute=1"></iframe>', []],
  [
    'frame-autoplay-with-sound',
    '<iframe src="//p.example/e?autoplay=1&muted=0">',
    ['src="//p.example/e?autoplay=1&muted=0"'],
  ],
  [
    'frame-autoplay-with-sound',
    '<iframe src="//p.example/e?autoplay=0"></iframe><iframe src="//p.example/e">',
    [],
  ],
  ['linked-picture-unnamed', '<a href="/"><img src="a.png" alt=""></a>', ['alt=""']],
  ['linked-picture-unnamed', '<button><span><img alt></span></button>', ['alt']],
  ['linked-picture-unnamed', '<a href="/"><img alt=""><i aria-hidden="true">x</i></a>', ['alt=""']],
  ['linked-picture-unnamed', '<a href="/" title="Home"><img alt=""></a><a><img alt=""></a>', []],
  [
    'linked-picture-unnamed',
    '<a href="/"><img alt=""><img alt="Home"></a><a href="/"><img></a>',
    [],
  ],
  [
    'alt-says-nothing',
    '<img alt="beans-2.JPG"><img alt="DSC_0042"><img alt="Photo 3">',
    ['alt="beans-2.JPG"', 'alt="DSC_0042"', 'alt="Photo 3"'],
  ],
  [
    'alt-says-nothing',
    '<img alt="…"><img alt="-"><img alt="an image">',
    ['alt="…"', 'alt="-"', 'alt="an image"'],
  ],
  ['alt-says-nothing', `<a href="/">${BEANS} Runner beans</a>`, ['alt="Runner beans"']],
  ['alt-says-nothing', `<p>${BEANS}</p><p>Runner beans</p>`, ['alt="Runner beans"']],
  [
    'alt-says-nothing',
    `${BEANS}<img alt=""><img alt="Image of beans"><img alt="🌱"><img alt="3 × 4">`,
    [],
  ],
  ['script-blocks-page', '<script src="/a.js"></script>', ['<script src="/a.js">']],
  [
    'script-blocks-page',
    '<script async src="/a.js"></script><script>1</script><script type="module" src="/a.js"></script>',
    [],
  ],
  [
    'script-blocks-page',
    '<script nomodule src="/a.js"></script><script type="text/x-seed" src="/a.js"></script>',
    [],
  ],
  ['attribute-misspelt', '<img scr="a.png" atl="x">', ['scr="a.png"', 'atl="x"']],
  [
    'attribute-misspelt',
    '<iframe allowfulscreen hieght="3"></iframe>',
    ['allowfulscreen', 'hieght="3"'],
  ],
  ['attribute-misspelt', '<video auto play muted></video>', ['auto play']],
  [
    'attribute-misspelt',
    '<button onlick="go()" arialabel="Go">x</button>',
    ['onlick="go()"', 'arialabel="Go"'],
  ],
  ['attribute-misspelt', '<svg viewbox="0 0 1 1" wdith="3"></svg>', ['wdith="3"']],
  [
    'attribute-misspelt',
    '<p :class="a" @click="b" v-if="c" x-data="d" data-scr="e" foo="f" wtf></p>',
    [],
  ],
  [
    'attribute-misspelt',
    '<seed-map scr="a"></seed-map><iframe frameborder="0" allowtransparency scrolling="no">',
    [],
  ],
  [
    'attribute-misspelt',
    '<img alt="a" loading="lazy" fetchpriority="low" decoding="async" srcset="b">',
    [],
  ],
  ['tag-left-open', '<div><p>Sow', ['<div>']],
  ['tag-left-open', '<p>Sow</p></div>', ['</div>']],
  ['tag-left-open', '<b>Sow', ['<b>']],
  ['tag-left-open', '<table><tr><td>Sow', ['<table>']],
  ['tag-left-open', '<ul><li>Sow', ['<ul>']],
  ['tag-left-open', '<script>let a = 1;', ['<script>']],
  ['tag-left-open', '<style>p {}', ['<style>']],
  ['tag-left-open', '<p>a</p><!-- sow', ['<!--']],
  ['tag-left-open', '<iframe src="a"</iframe>', ['<']],
  ['tag-left-open', '<img src="a.png>', ['"']],
  ['tag-left-open', '<img src="a.png" alt="x"', ['<img src="a.png" alt="x"']],
  ['tag-left-open', '<ul><li>a<li>b</ul><p>a<p>b<br><img><hr>', []],
  ['tag-left-open', '<p>Sow</p></p></span><input>', []],
  ['tag-left-open', '<script>if (a < b) c("<div>");</script><a title="a > b">x</a>', []],
  [
    'tag-left-open',
    '<table><tr><td>a<tr><td>b</table><dl><dt>a<dd>b</dl><select><option>a<option>b</select>',
    [],
  ],
  ['tag-left-open', 'Sow < reap & <3', []],
  ['jump-to-top-link', '<map name="m"><area href="#" alt="Beds"></map>', []],
  ['jump-to-top-link', '<a href="#">Beds</a>', ['href="#"']],
  [
    'jump-to-top-link',
    '<a href="#">Top ten seeds</a><a href="">To the top</a>',
    ['href="#"', 'href=""'],
  ],
  ['jump-to-top-link', '<a href="#">To the top</a><a href="#" aria-label="Back to top">↑</a>', []],
  ['jump-to-top-link', '<a href="#"><b>Nach</b> oben</a>', []],
  ['jump-to-top-link', '<a href="#" onclick="return false">Beds</a>', []],
];

describe('what is asked for without encryption', () => {
  test.each<[string, boolean[]]>([
    ['<img src="http://a.example/b.png">', [true]],
    ['<img srcset="http://a.example/b.png 2x">', [false]],
    ['<audio src="http://a.example/b.mp3"></audio>', [true]],
    ['<video><source src="http://a.example/b.mp4"></video>', [true]],
    ['<picture><source srcset="http://a.example/b.png"></picture>', [false]],
    ['<source src="http://a.example/b.mp4">', [false]],
    ['<script src="http://a.example/b.js"></script>', [false]],
    ['<link rel="stylesheet" href="http://a.example/b.css">', [false]],
    ['<video><track src="http://a.example/b.vtt"></video>', [false]],
    ['<link rel="preconnect" href="http://a.example/">', []],
    ['<link rel=" icon " href="http://a.example/b.ico">', []],
    ['<iframe src="http://a.example/"></iframe>', []],
    ['<p style="background: url(http://a.example/b.png)">Sow</p>', [true]],
    ['<p>http://a.example/</p>', []],
  ])('%s is asked for by https: instead: %j', (text, upgraded) => {
    expect(listInsecure(readMarkup(text)).map((one) => one.upgraded)).toEqual(upgraded);
  });
});

describe('from the markup alone', () => {
  test.each(CASES)('%s: %s', (ids, text, pieces) => {
    const { findings } = judge(text, [ids].flat());
    expect(findings.map(({ where }) => text.slice(where.offset, where.endOffset))).toEqual(pieces);
    expect(findings.every(({ seen }) => seen.length === 0)).toBe(true);
  });

  test('what a render decides is marked as not confirmed', () => {
    const { findings } = judge('<iframe width="640"></iframe><img><video autoplay>', [
      'frame-fixed-size',
      'picture-without-alt',
      'autoplay-with-sound',
    ]);
    expect(findings.map(({ confirmed }) => confirmed)).toEqual([false, false, false]);
  });

  test('a misspelt name is a blocker where it decides what is loaded', () => {
    const { findings } = judge('<p tilte="x"><img scr="a"></p>', ['attribute-misspelt']);
    expect(findings.map(({ level }) => level)).toEqual(['blocker', 'concern']);
  });
});

/** Code, and what it reads once mended. */
const MENDS: [string, string][] = [
  [
    '<video src="a.mp4" autoplay controls></video>',
    '<video src="a.mp4" autoplay controls muted></video>',
  ],
  ['<video src="a.mp4" loop="no" controls></video>', '<video src="a.mp4" controls></video>'],
  [
    '<iframe width="640" height="360"></iframe>',
    '<iframe width="640" height="360" style="width: 100%; max-width: 640px; box-sizing: border-box"></iframe>',
  ],
  // Only a player has a shape to keep.
  [
    '<iframe width="640" height="360" allowfullscreen></iframe>',
    '<iframe width="640" height="360" allowfullscreen style="width: 100%; max-width: 640px; box-sizing: border-box; height: auto; aspect-ratio: 640 / 360"></iframe>',
  ],
  [
    '<iframe title="A" sandbox="allow-script, allow-forms" srcdoc="x" style="border: 0; height: 9px"></iframe>',
    '<iframe title="A" sandbox="allow-scripts allow-forms" srcdoc="x" style="border: 0; height: 9px"></iframe>',
  ],
  // What is not to start by itself needs no leave to do so.
  [
    '<iframe title="A" src="https://player.loam.example/?autoplay=1" style="border: 0; height: 9px"></iframe>',
    '<iframe title="A" src="https://player.loam.example/?autoplay=0" style="border: 0; height: 9px"></iframe>',
  ],
  [
    '<iframe width="640" style="border: 0;"></iframe>',
    '<iframe width="640" style="border: 0; width: 100%; max-width: 640px; box-sizing: border-box"></iframe>',
  ],
  [
    '<iframe style="width:640px"></iframe>',
    '<iframe style="width: 100%; max-width: 640px; box-sizing: border-box"></iframe>',
  ],
  [
    '<video width="200" src="a.mp4" controls></video>',
    '<video width="200" src="a.mp4" controls style="max-width: 100%; height: auto; box-sizing: border-box"></video>',
  ],
];

describe('mended', () => {
  test.each(MENDS)('%s', (text, expected) => {
    const finding = judge(text).findings.find(
      ({ mend, id }) => mend && id !== 'autoplay-without-inline',
    )!;
    const mended = applyEdits(text, finding.mend!);
    expect(mended).toBe(expected);
    expect(judge(mended).findings.map(({ id }) => id)).not.toContain(finding.id);
  });

  test('a parameter that is not written as it is read is found, and its address left alone', () => {
    const tell = (address: string) =>
      judge(
        `<iframe title="Talk" src="https://player.loam.example/embed/talk?${address}"></iframe>`,
        ['frame-autoplay-with-sound'],
      ).findings.map(({ mend }) => mend !== null);
    expect(tell('autoplay=1')).toEqual([true]);
    expect(tell('autoplay=%31')).toEqual([false]);
  });

  test('what a person must word is not mended', () => {
    expect(judge('<img src="a.png">').findings[0]!.mend).toBeNull();
  });
});
