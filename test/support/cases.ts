import { expect } from '@jest/globals';
import type { Example } from '../../src/core/check.js';
import { reportOnce, type Recorded } from './recorded.js';

/**
 * What the code is, and the piece of it that must be pointed at; null where the check must keep silent. The house,
 * where it matters.
 */
export type HardCase = [code: string, excerpt: string | null, under?: Example['under']];

/** A picture that is there, with more of its attributes. */
const SHOWN = (more: string) =>
  `<img src="https://static.rootcellar.example/beans.png" width="9" height="9"${more}>`;

const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><nav><a href="/beds">Beds</a></nav><div data-mivket-slot="column"></div><p style="height: 1600px">Summer</p>';
const POSTS = "<p style='height: 500px; margin: 0'>Seed</p><script>parent.postMessage(";
const STATIC = 'style="border: 0; width: 100%; height: 200px"';

const FRAME = 'title="Map" src="https://maps.fernmap.example/embed/x"';
const TALK = 'src="https://media.loam.example/talk.mp4" playsinline';
const RAIN = 'src="https://media.loam.example/rain.mp4" muted playsinline style="width: 100%"';
const DRAWN =
  '<image xlink:href="https://static.rootcellar.example/beans.png" width="90" height="60"';
const BEANS = 'src="https://static.rootcellar.example/beans.png"';
const MAP = 'src="https://maps.fernmap.example/embed/x"';

/** A page of the house's own, with a menu and a foot. */
const HOST =
  '<!doctype html><html lang="en"><head><title>Visit</title></head><body style="margin: 0; color: #000"><nav class="menu"><a href="/visit">Visit</a></nav><main><h1>Beds</h1><div data-mivket-slot="column"></div></main><footer id="foot">Write to the desk</footer></body></html>';

/** With several lines of text before the slot. */
const WORDY = HOST.replace(
  '</h1>',
  `</h1><p style="margin: 0">${'What is sown in May, and when the beds are free. '.repeat(9)}</p>`,
);

/** Hard cases of checks, by their finding. */
export const CASES: Record<string, HardCase[]> = {
  'media-missing': [
    [
      '<video controls playsinline><source src="https://media.loam.example/nosuch.mp4"><source src="https://media.loam.example/talk.mp4"></video>',
      'src="https://media.loam.example/nosuch.mp4"',
    ],
    [
      '<audio controls src="https://media.nosuch.example/a.mp3"></audio>',
      'src="https://media.nosuch.example/a.mp3"',
    ],
    [
      '<script>document.body.append(Object.assign(document.createElement("video"), { src: "https://media.loam.example/nosuch.mp4" }))</script>',
      '<script>',
    ],
    // A page, no file: that is told as such.
    ['<audio controls src="https://player.loam.example/embed/talk"></audio>', null],
    // Visitors may see more.
    ['<audio controls src="https://player.loam.example/status/403"></audio>', null],
    ['<video controls preload="none" src="https://media.loam.example/talk.mp4"></video>', null],
  ],
  'media-page-not-file': [
    [
      '<audio controls src="https://player.loam.example/embed/talk"></audio>',
      'src="https://player.loam.example/embed/talk"',
    ],
    [
      '<video controls><source src="https://player.loam.example/embed/talk" type="video/mp4"></video>',
      'src="https://player.loam.example/embed/talk"',
    ],
    ['<audio controls src="https://player.loam.example/status/500"></audio>', null],
  ],
  'media-without-captions': [
    [`<video controls ${TALK}></video>`, `<video controls ${TALK}>`],
    [
      `<video controls ${TALK}><track kind="chapters" src="data:text/vtt,WEBVTT"></video>`,
      `<video controls ${TALK}>`,
    ],
    [`<video controls ${TALK}><track kind="CAPTIONS" src="data:text/vtt,WEBVTT"></video>`, null],
    ['<video controls><source src="https://media.loam.example/rain.mp4"></video>', null],
    // What is said in it is not known before it loads.
    [
      '<video controls preload="none" src="https://media.loam.example/rain.mp4"></video>',
      '<video controls preload="none" src="https://media.loam.example/rain.mp4">',
    ],
    [`<video autoplay muted loop ${TALK}></video>`, null],
    [`<video muted loop controls ${TALK}></video>`, `<video muted loop controls ${TALK}>`],
    [`<div hidden><video controls ${TALK}></video></div><p>Sow</p>`, null],
    [`<audio controls ${TALK}></audio>`, null],
    [
      `<video id="v" controls></video><script>v.src = "https://media.loam.example/talk.mp4"</script>`,
      null,
    ],
  ],
  'not-secure': [
    [
      '<img src="HTTP://static.rootcellar.example/beans.png" alt="Beans">',
      'src="HTTP://static.rootcellar.example/beans.png"',
    ],
    [
      '<img srcset="http://static.rootcellar.example/beans.png 2x" alt="Beans">',
      'srcset="http://static.rootcellar.example/beans.png 2x"',
    ],
    [
      '<style>.a { background: url("http://static.rootcellar.example/beans.png") }</style><p class="a">Sow</p>',
      'http://static.rootcellar.example/beans.png',
    ],
    [
      '<p style="background: url(http://static.rootcellar.example/none.png)">Sow</p>',
      'http://static.rootcellar.example/none.png',
    ],
    ['<p>Sow</p><script>fetch("http://static.rootcellar.example/beans.png")</script>', '<script>'],
    [
      '<video controls src="http://media.loam.example/talk.mp4"></video>',
      'src="http://media.loam.example/talk.mp4"',
    ],
    // A link, a hint, a name, and words.
    ['<a href="http://www.rootcellar.example/">http://www.rootcellar.example/</a>', null],
    ['<link rel="preconnect" href="http://static.rootcellar.example"><p>Sow</p>', null],
    ['<iframe title="Map" src="http://maps.fernmap.example/embed/x"></iframe>', null],
    ['<p>Sow</p><img src="http://192.168.0.9/beans.png" alt="Beans">', null],
    [
      '<img src="http://static.rootcellar.example/beans.png" alt="Beans">',
      null,
      { origin: 'http://www.seedlibrary.example' },
    ],
  ],
  'request-failed': [
    [
      '<p style="background: url(https://static.rootcellar.example/none.png)">Sow</p>',
      '<p style="background: url(https://static.rootcellar.example/none.png)">',
    ],
    [
      '<script async src="https://static.rootcellar.example/none.js"></script><p>Sow</p>',
      'src="https://static.rootcellar.example/none.js"',
    ],
    [
      '<script async src="https://player.loam.example/embed/x"></script><p>Sow</p>',
      'src="https://player.loam.example/embed/x"',
    ],
    ['<p>Sow</p><script>fetch("https://player.loam.example/status/500")</script>', '<script>'],
    [
      '<p>Sow</p><script>fetch("https://static.rootcellar.example/moved/none.png")</script>',
      '<script>',
    ],
    [
      `<video controls poster="https://static.rootcellar.example/none.png" ${TALK}></video>`,
      'poster="https://static.rootcellar.example/none.png"',
    ],
    // What other findings tell, what visitors may be given, and what the snippet itself gives up.
    ['<img src="https://static.rootcellar.example/none.png" alt="Beans">', null],
    ['<img src="http://static.rootcellar.example/none.png" alt="Beans">', null],
    ['<iframe title="Talk" src="https://player.loam.example/status/404"></iframe>', null],
    ['<video controls src="https://media.loam.example/nosuch.mp4"></video>', null],
    ['<p>Sow</p><script>fetch("https://media.loam.example/talk.mp4")</script>', null],
    [
      '<p>Sow</p><script>const c = new AbortController(); fetch("https://static.rootcellar.example/beans.png", { signal: c.signal }); c.abort()</script>',
      null,
    ],
  ],
  'page-scrolls-sideways': [
    // Only where it is asked for.
    [
      '<style>@media (prefers-reduced-motion: reduce) { .b { width: 2500px } }</style><p class="b">Sow</p>',
      'width: 2500px',
    ],
    [
      '<style>@media (max-height: 450px) { .b { width: 2500px } }</style><p class="b">Sow</p>',
      'width: 2500px',
    ],
    [
      '<style>@media (orientation: landscape) and (max-height: 400px) { .b { width: 2500px } }</style><p class="b">Sow</p>',
      'width: 2500px',
    ],
    [
      '<p id="b">Sow</p><script>if (localStorage.been) b.style.width = "2500px"; localStorage.been = 1</script>',
      '<p id="b">',
    ],
    [
      '<p id="b">Sow</p><script>if (sessionStorage.been) b.style.width = "2500px"; sessionStorage.been = 1; document.cookie = "been=1"</script>',
      null,
    ],
    [
      '<p id="b">Sow</p><script>if (innerWidth > 500 && innerWidth < 560) b.style.width = "2500px"</script>',
      '<p id="b">',
    ],
    [
      '<style>@media (prefers-color-scheme: dark) { .b { color: #fff } } @media (prefers-contrast: more) { .b { color: #000 } }</style><p class="b">Sow</p>',
      null,
    ],
    [
      '<style>@keyframes out { to { transform: translateX(1400px) } } .b { animation: out 9s infinite }</style><p class="b">Sow</p>',
      'animation: out 9s infinite',
    ],
    [
      '<style>@keyframes out { from { margin-left: 0 } to { margin-left: 1300px } }</style><p style="width: 90px; animation: out 2s infinite alternate">Sow</p>',
      'animation: out 2s infinite alternate',
    ],
    [
      '<style>@keyframes by { from { transform: translateX(100%) } to { transform: translateX(-100%) } } .b { animation: by 9s linear infinite }</style><div style="overflow: hidden"><p class="b">Sow</p></div>',
      null,
    ],
    [`<img ${BEANS} alt="Beans" width="900">`, 'width="900"'],
    ['<div style="margin-right: -60px">Sow</div>', 'margin-right: -60px'],
    ['<div style="position: absolute; left: 1400px; width: 90px">Sow</div>', 'left: 1400px'],
    ['<div style="transform: translateX(1300px)">Sow</div>', 'transform: translateX(1300px)'],
    [
      '<p>https://www.seedlibrary.example/a_very_long_address_without_any_break_at_all_that_goes_on</p>',
      '<p>',
    ],
    [
      '<style>.a::after { content: ""; display: block; width: 1500px; height: 1px }</style><p class="a">Sow</p>',
      'width: 1500px',
    ],
    [
      '<style>@keyframes in { to { transform: translateX(1300px) } } .b { animation: in 0.3s forwards }</style><div class="b">Sow</div>',
      'animation: in 0.3s forwards',
    ],
    [
      '<div style="display: flex"><b style="flex: none; width: 300px">a</b><b style="flex: none; width: 300px">b</b></div>',
      'display: flex',
    ],
    ['<input size="120" aria-label="Seed">', 'size="120"'],
    ['<svg width="1400" height="10"></svg>', 'width="1400"'],
    ['<div style="visibility: hidden; width: 1400px">Sow</div>', 'width: 1400px'],
    [
      '<script>document.body.append(Object.assign(document.createElement("div"), { style: "width: 1400px; height: 9px" }))</script>',
      '<script>',
    ],
    [
      '<p>Sow</p><script>addEventListener("scroll", () => { document.body.insertAdjacentHTML("beforeend", "<div style=width:1400px>x</div>") }, { once: true })</script>',
      '<script>',
    ],
    [
      '<script>setTimeout(() => document.querySelector("#w").style.width = "1400px", 700)</script><div id="w">Sow</div>',
      '<div id="w">',
    ],
    [
      '<div id="r"></div><script>document.querySelector("#r").attachShadow({ mode: "closed" }).innerHTML = "<p style=width:1400px>x</p>"</script>',
      '<script>',
    ],
    ['<style>body { min-width: 1500px }</style><p>Sow</p>', 'min-width: 1500px'],
    ['<div style="width: 100vw">Sow</div>', 'width: 100vw'],
    ['<div style="overflow: hidden"><div style="width: 1400px">Sow</div></div>', null],
    ['<div style="position: fixed; left: 0; width: 1400px">Sow</div>', null],
    ['<div style="position: absolute; left: -9999px">Sow</div>', null],
    ['<div style="transform: translateX(-120%)">Sow</div>', null],
    ['<div style="display: none; width: 1400px">Sow</div>', null],
    [
      '<div style="overflow: clip"><div style="display: flex"><b style="flex: none; width: 900px">a</b></div></div>',
      null,
    ],
    ['<style>html { overflow-x: hidden }</style><div style="width: 1400px">Sow</div>', null],
    [
      '<style>@keyframes by { from { transform: translateX(0) } to { transform: translateX(40px) } } .c { width: 90px; animation: by 0.4s infinite }</style><div class="c">Sow</div>',
      null,
    ],
    ['<div style="width: 1400px; max-width: 100%">Sow</div>', null],
  ],
  'style-declaration-ignored': [
    ['<p style="heigth: 10px">Sow</p>', 'heigth: 10px'],
    ['<style>.a { margin: 10 20px }</style><p class="a">Sow</p>', 'margin: 10 20px'],
    ['<style>@media print { .a { colour: red } }</style><p class="a">Sow</p>', 'colour: red'],
    ['<p style="--a: 12; width: var(--a); -moz-a: b; color: red !important">Sow</p>', null],
  ],
  'frame-height-collapsed': [
    [
      `<iframe title="Map" ${MAP} style="border: 0; width: 100%" height="100%"></iframe>`,
      'height="100%"',
    ],
    [`<iframe title="Map" ${MAP} style="border: 0; width: 100%; height: 120px"></iframe>`, null],
    ['<iframe title="Map" style="border: 0; width: 100%"></iframe>', null],
    [
      `<iframe title="Map" ${MAP} style="border: 0; width: 100%"></iframe>`,
      `<iframe title="Map" ${MAP} style="border: 0; width: 100%">`,
    ],
    [
      '<iframe title="Hours" srcdoc="<p style=\'margin: 0; height: 60px\'>Weekdays</p>" style="border: 0; width: 100%"></iframe>',
      null,
    ],
  ],
  'frame-proportion-lost': [
    [
      '<iframe title="Beds" allowfullscreen allow="fullscreen" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 300px"></iframe>',
      null,
    ],
    [
      '<iframe title="Beds" allow="encrypted-media; fullscreen" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 300px"></iframe>',
      'height: 300px',
    ],
    [
      '<iframe title="Beds" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 300px"></iframe>',
      'height: 300px',
      { players: { '*.fernmap.example': { mute: { quiet: 1 } } } },
    ],
    ['<video controls preload="none" style="width: 100%; height: 300px"></video>', 'height: 300px'],
    [
      `<video ${TALK} controls preload="auto" style="width: 200px; height: 200px"></video>`,
      'height: 200px',
    ],
    [
      `<video ${TALK} autoplay muted style="width: 100%; height: 300px; object-fit: cover"></video>`,
      null,
    ],
    [
      `<iframe title="Talk" src="https://player.loam.example/embed/talk" allowfullscreen style="border: 0; width: 100%; height: 300px"></iframe>`,
      'height: 300px',
    ],
  ],
  'focus-taken-at-load': [
    ['<div tabindex="0" autofocus>Sow</div>', 'autofocus'],
    ['<p hidden><input autofocus aria-label="Seed"></p>', null],
    ['<p id="beds">Sow</p><script>location.hash = "beds"</script>', 'location'],
    [
      '<p id="beds">Sow</p><button onclick="beds.scrollIntoView()">Beds</button><script>1</script>',
      null,
      { page: `${PAGE}<script>onload = () => scrollTo(0, 200)</script>` },
    ],
    ['<p>Sow</p><script>onload = () => scrollTo(0, 200)</script>', 'scrollTo', { page: PAGE }],
  ],
  'slot-overflow': [
    ['<a href="/beds">Beds<p>More</p>', null],
    ['</main><p>Sow</p>', null, { page: HOST }],
    ['<p>Sow<div style="margin-left: -20px">beans</div></p>', 'margin-left: -20px'],
    [
      '<style>@keyframes turn { to { transform: rotate(1turn) } } .w { animation: turn 0.9s linear infinite; width: 60px; height: 60px; border-radius: 50%; background: #274029 }</style><div class="w"></div><p>Sow</p>',
      null,
    ],
    // Without its width it would be as wide as it comes, which is more.
    [`<img ${BEANS} alt="Beans" width="300">`, `<img ${BEANS} alt="Beans" width="300">`],
    ['<div style="margin: 0 -10px">Sow</div>', 'margin: 0 -10px'],
    ['<table><tr><td><div style="width: 296px">Sow</div></table>', 'width: 296px'],
    ['<div style="position: absolute; left: -9999px; width: 900px">Sow</div>', null],
    ['<div style="visibility: hidden; width: 300px">Sow</div>', null],
    ['<div style="overflow: auto"><div style="width: 300px">Sow</div></div>', null],
    ['<div style="position: fixed; right: 0; bottom: 0; width: 300px">Chat</div>', null],
    ['<p>Sow thinly, water well, and wait.</p>', null],
    ['<div style="margin-left: -9px; background: #3d5a73">Sow</div>', 'margin-left: -9px'],
    ['<div hidden="until-found"><p style="width: 300px; background: #3d5a73">Sow</p></div>', null],
    [
      '<div style="contain: paint"><p style="width: 300px; background: #3d5a73">Sow</p></div>',
      null,
    ],
    [
      '<div style="content-visibility: auto"><p style="width: 300px; background: #000">S</p></div>',
      null,
    ],
    [
      '<details><summary>Beds</summary><p style="width: 300px; background: #3d5a73">Sow</p></details>',
      null,
    ],
    [
      '<details open><summary>Beds</summary><p style="width: 300px; background: #000">S</p></details>',
      'width: 300px',
    ],
    ['<div style="margin: 0 -9px"><p style="margin: 0 9px">Sow</p></div>', null],
    ['<div style="opacity: 0"><p style="width: 300px; background: #3d5a73">Sow</p></div>', null],
  ],
  'frame-wider-than-slot': [
    [`<iframe ${FRAME} width="296" height="90" style="border: 0"></iframe>`, 'width="296"'],
    [`<style>iframe { width: 296px; border: 0 }</style><iframe ${FRAME}></iframe>`, 'width: 296px'],
    [`<div style="overflow: hidden"><iframe ${FRAME} width="500"></iframe></div>`, 'width="500"'],
    [`<iframe ${FRAME} width="100%" style="border: 0"></iframe>`, null],
    [`<iframe ${FRAME} width="900" style="display: none"></iframe>`, null],
    [
      `<iframe ${FRAME} width="900" style="border: 0"></iframe><script>document.querySelector("iframe").width = "100%"</script>`,
      null,
    ],
  ],
  'frame-fixed-size': [
    // Beside it stands what this browser breaks down on when it is asked how wide it is stated to be.
    [
      `<style>.map { width: 280px; border: 0 }</style><p style="width: calc(50% + 1px * (100vw / 100px))">Beds</p><iframe class="map" ${FRAME}></iframe>`,
      'width: 280px',
    ],
    [
      `<style>.map { width: 100%; border: 0 }</style><p style="width: calc(50% + 1px * (100vw / 100px))">Beds</p><iframe class="map" width="280" ${FRAME}></iframe>`,
      null,
    ],
    [`<video ${TALK} controls width="240"></video>`, 'width="240"'],
    [`<iframe ${FRAME} style="width: 240px; border: 0"></iframe>`, 'width: 240px'],
    [
      '<iframe title="Talk" src="https://player.loam.example/embed/talk" allowfullscreen width="120" height="90" style="border: 0"></iframe>',
      'width="120"',
    ],
    [`<embed type="text/html" ${FRAME} width="200" height="90">`, 'width="200"'],
    [
      `<style>@media (min-width: 900px) { iframe { width: 600px } }</style><iframe ${FRAME} width="240" style="border: 0"></iframe>`,
      null,
    ],
    [`<iframe ${FRAME} width="240" style="max-width: 100%"></iframe>`, null],
    [`<iframe ${FRAME} width="240" style="width: 100%"></iframe>`, null],
    [`<iframe ${FRAME} width="120" style="border: 0"></iframe>`, null],
    [`<iframe ${FRAME} width="240" style="display: none"></iframe>`, null],
    [
      `<iframe ${FRAME} width="240" style="border: 0"></iframe><script>document.querySelector("iframe").style.width = "90%"</script>`,
      null,
    ],
  ],
  'host-content-damaged': [
    [
      '<div style="margin-top: -60px; background: #fff; position: relative">Sow</div>',
      '<div style="margin-top: -60px; background: #fff; position: relative">Sow</div>',
      { page: WORDY },
    ],
    [
      '<div style="box-shadow: 0 8px 24px rgba(0, 0, 0, 0.3); background: #fff; padding: 9px">Sow</div>',
      null,
      { page: WORDY },
    ],
    [
      '<div style="position: fixed; inset: 0; backdrop-filter: blur(6px); pointer-events: none"></div><p>Sow</p>',
      '<div style="position: fixed; inset: 0; backdrop-filter: blur(6px); pointer-events: none">',
    ],
    [
      '<p style="box-shadow: 0 0 0 9999px #234; position: relative">Sow</p>',
      '<p style="box-shadow: 0 0 0 9999px #234; position: relative">Sow</p>',
    ],
    [
      '<p>Sow</p><script>setTimeout(() => document.body.insertAdjacentHTML("beforeend", "<div style=\'position: fixed; inset: 0; background: #fff; pointer-events: none\'></div>"), 9000)</script>',
      '<script>',
    ],
    ['<p>Sow</p><script>document.body.prepend(document.querySelector("footer"))</script>', null],
    [
      '<p>Sow</p><script>addEventListener("load", () => document.body.prepend(document.querySelector("footer")))</script>',
      '<script>',
      { page: HOST },
    ],
    // It stays in a corner: what is under it can be scrolled from there.
    [
      '<p>Sow</p><div style="position: fixed; right: 0; bottom: 0; width: 90px; height: 90px; background: #264; pointer-events: none"></div>',
      null,
    ],
    ['<p style="box-shadow: 0 2px 12px #0004; outline: 1px solid #264">Sow</p>', null],
    ['<p style="transition: transform 0.2s; transform: rotate(-1deg)">Sow</p>', null],
    [
      '<div style="position: relative; overflow: hidden; height: 90px"><p style="position: absolute; left: -40px; width: 900px; background: #264; color: #fff">Sow</p></div>',
      null,
    ],
    ['<p>Sow</p><script>document.querySelector("header a").inert = true</script>', '<script>'],
    [
      '<p>Sow</p><script>document.querySelector("header").style.pointerEvents = "none"</script>',
      '<script>',
    ],
    [
      '<p>Sow</p><script>document.querySelector("h1").style.fontWeight = "400"</script>',
      '<script>',
    ],
    // What the page itself keeps from clicks is none the worse.
    [
      '<p>Sow</p><script>document.querySelector("nav a").style.pointerEvents = "none"</script>',
      null,
      { page: HOST.replace('<nav', '<nav inert') },
    ],
    // A rule that fits it says so itself.
    ['<style>.menu { display: none }</style><p>Sow</p>', null, { page: HOST }],
    ['<p class="menu">Sow</p>', null, { page: HOST }],
    [
      '<p>Sow</p><script>document.querySelector("h1").textContent = "Half price"</script>',
      '<script>',
    ],
    [
      '<p>Sow</p><script>document.querySelector("nav a").href = "https://elsewhere.example/"</script>',
      '<script>',
      { page: HOST },
    ],
    ['<p>Sow</p><script>document.body.style.opacity = ".4"</script>', '<script>'],
    ['<p>Sow</p><script>document.documentElement.style.filter = "invert(1)"</script>', '<script>'],
    [
      '<p>Sow</p><script>document.querySelector("h1").insertAdjacentHTML("beforebegin", "<p style=\'height: 300px\'>Buy</p>")</script>',
      '<script>',
    ],
    // Nobody reads these.
    [
      '<p>Sow</p><script>document.querySelector("h1").dataset.seen = "1"; document.body.className = "on"</script>',
      null,
    ],
    // Its own page may write what it likes, and other words each time.
    [
      '<p>Sow</p><script>document.title</script>',
      null,
      {
        page: HOST.replace(
          '<nav',
          '<p id="day"></p><script>document.getElementById("day").textContent = Math.random()</script><nav',
        ),
      },
    ],
  ],
  'page-locked': [
    [
      '<p>Sow</p><script>setTimeout(() => { document.body.style.cssText = "overflow: hidden; height: 100vh" }, 20000)</script>',
      'overflow',
      { page: HOST.replace('</footer>', '</footer><p style="height: 3000px">Beds</p>') },
    ],
    [
      '<p>Sow</p><script>setTimeout(() => { document.body.style.overflow = "auto" }, 20000)</script>',
      null,
      { page: HOST.replace('</footer>', '</footer><p style="height: 3000px">Beds</p>') },
    ],
    [
      '<style>body { position: fixed; overflow: hidden }</style><p>Sow</p>',
      '<style>',
      { page: HOST.replace('</footer>', '</footer><p style="height: 3000px">Beds</p>') },
    ],
    ['<p>Sow</p><script>addEventListener("scroll", () => scrollTo(0, 0))</script>', 'scrollTo'],
    [
      '<p>Sow</p><script>addEventListener("keydown", (event) => event.preventDefault())</script>',
      'keydown',
      { page: HOST.replace('</nav>', '<a href="/beds">Beds</a></nav>') },
    ],
    [
      '<p>Sow</p><script>addEventListener("keydown", (event) => event.key === "Escape" && event.preventDefault())</script>',
      null,
      { page: HOST.replace('</nav>', '<a href="/beds">Beds</a></nav>') },
    ],
    ['<p>Sow</p><script>addEventListener("wheel", () => {}, { passive: false })</script>', null],
    // Its own page is so without it.
    [
      '<p>Sow</p><script>document.title</script>',
      null,
      {
        page: HOST.replace('margin: 0', 'margin: 0; height: 3000px; position: fixed; width: 100%'),
      },
    ],
  ],
  'text-invisible': [
    [
      '<style>@media (prefers-color-scheme: dark) { .b { background: #fff; color: #fefefe } }</style><p class="b">Sow</p>',
      'color: #fefefe',
    ],
    [
      '<p>Reap</p><p style="clip-path: circle(1px at 0 0)"><a href="/beds">Sow</a></p>',
      '<a href="/beds">',
    ],
    [
      '<p>Reap</p><div style="mask: linear-gradient(transparent, transparent)"><p>Sow</p></div>',
      '<p>',
    ],
    [
      '<div style="position: relative"><p>Sow</p><i style="position: absolute; inset: 0; background: #faf8f4; pointer-events: none"></i></div><b>Reap</b>',
      '<p>',
    ],
    // It is opened, or is brought in, by use.
    [
      '<div style="overflow: hidden; width: 200px"><div style="display: flex; width: 400px"><p style="flex: none; width: 200px">Sow</p><p style="flex: none; width: 200px">Reap</p></div></div>',
      null,
    ],
    ['<details><summary>Beds</summary><p>Sow</p></details>', null],
    [
      '<div style="position: relative; height: 60px"><p style="position: absolute; inset: 0; background: #fff">Sow</p><a href="/beds" style="position: absolute; inset: 0; padding-left: 90px; background: #fff">Beds</a></div>',
      null,
    ],
    [
      '<style>.in { opacity: 0; transform: translateY(20px); transition: all 0.4s } .in.seen { opacity: 1; transform: none }</style><p class="in">Sow</p><b>Reap</b><script>new IntersectionObserver(([one]) => one.target.classList.toggle("seen", one.isIntersecting)).observe(document.querySelector(".in"))</script>',
      null,
    ],
    ['<p style="color: transparent">Water</p><p>Sow</p>', 'color: transparent'],
    [
      '<h3 style="background: #fff"><a href="/a" style="color: #fefefe">Beds</a></h3>',
      'color: #fefefe',
    ],
    [
      '<p style="background: url(https://static.rootcellar.example/beans.png); color: transparent; height: 60px">Beans</p>',
      null,
    ],
    ['<p style="color: #bbb; background: #fff">Sow</p>', null],
    ['<button disabled style="color: #fff; background: #fff">Sow</button><p>Sow</p>', null],
  ],
  'download-forced': [
    [
      '<iframe title="Seeds" style="border: 0; width: 100%; height: 90px" src="data:application/zip;base64,AAAA"></iframe><p>Sow</p>',
      '<iframe title="Seeds" style="border: 0; width: 100%; height: 90px" src="data:application/zip;base64,AAAA">',
    ],
    ['<p>Sow</p><script>location.href = "data:application/zip;base64,AAAA"</script>', 'location'],
    [
      '<button type="button" id="b">Save</button><script>document.getElementById("b").onclick = () => { location.href = "data:application/zip;base64,AAAA" }</script>',
      null,
    ],
  ],
  'visitor-hindered': [
    [
      '<p>Sow</p><script>addEventListener("keydown", (event) => event.ctrlKey && event.preventDefault())</script>',
      'keydown',
    ],
    [
      '<p id="bed">Sow</p><script>setInterval(() => { bed.textContent += "x" }, 3000); addEventListener("keydown", () => 0)</script>',
      null,
      { page: HOST.replace('</footer>', '</footer><p style="height: 3000px">Beds</p>') },
    ],
    ['<style>body { user-select: none }</style><p>Sow</p>', '<style>'],
    ['<p>Sow</p><script>onbeforeunload = () => "Stay?"</script>', 'beforeunload'],
    ['<p>Sow</p><script>onbeforeunload = () => { document.title }</script>', null],
    [
      '<p>Sow</p><script>addEventListener("paste", (event) => event.preventDefault())</script>',
      'paste',
      { page: HOST.replace('</nav>', '</nav><p><input aria-label="Seeds"></p>') },
    ],
    [
      '<p>Sow</p><script>addEventListener("keydown", (event) => event.code === "Space" && event.preventDefault())</script>',
      'keydown',
      { page: HOST.replace('</footer>', '</footer><p style="height: 3000px">Beds</p>') },
    ],
    ['<p style="user-select: none">Sow</p>', null],
    [
      '<p>Sow</p><script>document.querySelector("p").oncopy = () => false</script>',
      null,
      { page: HOST.replace('<body', '<body oncontextmenu="return false"') },
    ],
  ],
  'style-reaches-outside': [
    [
      '<style>:root { --leaf: #060 }</style><p style="color: var(--leaf)">Sow</p>',
      null,
      { page: HOST },
    ],
    [
      '<style>:root { --leaf: #c00 }</style><p>Sow</p>',
      ':root',
      { page: HOST.replace('<nav', '<style>.menu a { color: var(--leaf, #060) }</style><nav') },
    ],
    [
      '<style>@scope (.own) { a, .menu { color: #c00 } }</style><p class="own"><a href="/a">Sow</a></p>',
      null,
      { page: HOST },
    ],
    ['<style>.menu { display: none }</style><p>Sow</p>', '.menu', { page: HOST }],
    ['<style>.a, #foot { color: red }</style><p class="a">Sow</p>', '#foot', { page: HOST }],
    ['<style>.menu a { letter-spacing: 3px }</style><p>Sow</p>', '.menu a', { page: HOST }],
    [
      '<style>[href="/visit"] { pointer-events: none }</style><p>Sow</p>',
      '[href="/visit"]',
      { page: HOST },
    ],
    // It fits, although nothing is seen of it now.
    ['<style>.menu { color: #000 }</style><p>Sow</p>', '.menu', { page: HOST }],
    [
      '<style>.menu a:hover::after { color: red }</style><p>Sow</p>',
      '.menu a:hover::after',
      { page: HOST },
    ],
    ['<style>@media print { .menu { display: none } }</style><p>Sow</p>', '.menu', { page: HOST }],
    ['<style>.menu { color: #000 }</style><p class="menu">Sow</p>', null],
    [
      '<style>.beds a { color: #00f }</style><p class="beds"><a href="/a">Sow</a></p>',
      null,
      { page: HOST },
    ],
    ['<style>.a .menu { display: none }</style><p class="a">Sow</p>', null, { page: HOST }],
    // Another rule's doing is not put down to it.
    [
      '<style>.b { color: red }</style><p class="b">Sow</p><script>document.querySelector(".menu").remove()</script>',
      null,
      { page: HOST },
    ],
  ],
  'jump-to-top-link': [
    [
      '<p id="l"><a href="#" class="a">List</a></p><script>document.addEventListener("click", (event) => { if (event.target.matches(".b")) event.preventDefault() })</script>',
      'href="#"',
    ],
    [
      '<p id="l"><a href="">List</a></p><script>document.querySelector("#l a").onclick = (event) => event.stopPropagation()</script>',
      'href=""',
    ],
    [
      '<p id="l"><a href="#" onclick="open_list(event)">List</a></p><script>function open_list() {}</script>',
      'href="#"',
    ],
    [
      '<p id="l"><a href="#" onclick="open_list(event)">List</a></p><script>function open_list(event) { event.preventDefault() }</script>',
      null,
    ],
    [
      '<p id="l"><a href="#"><b>List</b></a></p><script>document.addEventListener("click", (event) => { if (event.target.closest("a")) event.preventDefault() })</script>',
      null,
    ],
    [
      '<p id="l"><a href="#">List</a></p><script>document.querySelector("#l a").onclick = (event) => { event.stopImmediatePropagation(); event.preventDefault() }</script>',
      null,
    ],
    [
      '<p id="l"><a href="#">List</a></p><script>addEventListener("load", () => { document.querySelector("#l a").href = "#beds" })</script>',
      null,
    ],
    // Somebody may show it: who cannot be clicked is told from the markup.
    ['<p id="l"><a href="#" style="display: none">List</a></p><script>0</script>', null],
  ],
  'autoplay-with-sound': [
    [
      `<iframe title="Talk" ${STATIC} srcdoc="<audio autoplay controls src='https://media.loam.example/talk.mp4'></audio>"></iframe>`,
      `<iframe title="Talk" ${STATIC} srcdoc="<audio autoplay controls src='https://media.loam.example/talk.mp4'></audio>">`,
    ],
    [
      `<iframe title="Rain" ${STATIC} srcdoc="<video autoplay muted playsinline src='https://media.loam.example/rain.mp4'></video>"></iframe>`,
      null,
    ],
    [
      `<video autoplay="" controls playsinline style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.mp4" type="video/mp4"></video>`,
      'autoplay=""',
    ],
    [
      `<video ${TALK} autoplay preload="none" style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      'autoplay',
    ],
    [
      `<div style="height: 3000px"></div><video ${TALK} autoplay style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      'autoplay',
    ],
    [
      `<video ${TALK} style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").autoplay = true</script>`,
      `<video ${TALK} style="width: 100%; aspect-ratio: 16 / 9">`,
    ],
    [
      '<div id="v"></div><script>document.querySelector("#v").innerHTML = "<video autoplay src=https://media.loam.example/talk.mp4 style=width:100%>"</script>',
      '<script>',
    ],
    [
      '<p>Sow</p><script>new Audio("https://media.loam.example/talk.mp4").play().catch(() => 0)</script>',
      '.play(',
    ],
    [
      '<audio id="a" src="https://media.loam.example/talk.mp4"></audio><script>a.play().catch(() => 0)</script>',
      '.play(',
    ],
    [
      `<video ${TALK} muted style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").play()</script>`,
      null,
    ],
    [
      `<video ${TALK} style="width: 100%; aspect-ratio: 16 / 9" onclick="this.play()"></video>`,
      null,
    ],
    [`<video ${TALK} autoplay muted style="width: 100%; aspect-ratio: 16 / 9"></video>`, null],
    [
      `<video ${TALK} autoplay muted="false" style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      null,
    ],
    [
      `<div style="height: 3000px"></div><video ${TALK} autoplay muted style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      null,
    ],
    [
      `<video ${TALK} autoplay style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").volume = 0</script>`,
      null,
    ],
    [`<video ${TALK} controls style="width: 100%; aspect-ratio: 16 / 9"></video>`, null],
    ['<audio autoplay src="https://media.loam.example/talk.mp4"></audio>', null],
  ],
  'frame-border-left-on': [
    [`<iframe ${FRAME} style="width: 100%"></iframe>`, `<iframe ${FRAME} style="width: 100%">`],
    [`<iframe ${FRAME} style="border: 2px inset"></iframe>`, null],
    [`<iframe ${FRAME} style="border-style: none"></iframe>`, null],
    [`<iframe ${FRAME} style="display: none"></iframe>`, null],
    [`<iframe ${FRAME} width="0" height="0"></iframe>`, null],
    [`<embed type="text/html" ${FRAME} width="90" height="90">`, null],
    [
      `<iframe ${FRAME}></iframe><script>document.querySelector("iframe").style.border = "0"</script>`,
      null,
    ],
  ],
  'autoplay-value-ignored': [
    [
      `<video ${TALK} controls="false" style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      'controls="false"',
    ],
    ['<audio loop=off controls src="https://media.loam.example/talk.mp4"></audio>', 'loop=off'],
    [
      `<video ${TALK} controls loop="true" style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      null,
    ],
    ['<div controls="false" loop="no">Sow</div>', null],
  ],
  'picture-without-alt': [
    [
      `<svg width="90" height="60" aria-hidden="true">${DRAWN}></svg><svg width="90" height="60">${DRAWN}><title>Beans</title></image></svg>`,
      null,
    ],
    [
      `<svg width="90" height="60"><title>Beans</title>${DRAWN}/></svg><svg width="90" height="60"><defs><pattern id="beds" width="9" height="9">${DRAWN}/></pattern></defs></svg>`,
      null,
    ],
    // That the link has no name is told of the drawing.
    [`<a href="/desk"><svg width="90" height="60">${DRAWN}/></svg></a>`, null],
    [
      `<script>document.body.insertAdjacentHTML("beforeend", '<svg width="90" height="60">${DRAWN}/></svg>')</script>`,
      '<script>',
    ],
    [
      `<iframe title="Beans" style="border: 0; width: 100%; height: 90px" srcdoc="<p>Beans</p><img src='https://static.rootcellar.example/beans.png' width='90' height='60' alt='Beans'>"></iframe>`,
      null,
    ],
    [
      `<iframe hidden title="Beans" srcdoc="<img src='https://static.rootcellar.example/beans.png'>"></iframe>`,
      null,
    ],
    [
      `<object data="https://static.rootcellar.example/beans.png" width="90" height="60"></object>`,
      '<object data="https://static.rootcellar.example/beans.png" width="90" height="60">',
    ],
    [
      `<object data="https://static.rootcellar.example/beans.png" width="90" height="60" aria-label="Beans"></object>`,
      null,
    ],
    [
      `<object type="text/html" data="https://maps.fernmap.example/embed/x" width="90" height="60" title="Map"></object>`,
      null,
    ],
    [
      '<map name="m"><area href="/beds" shape="rect" coords="0,0,9,9"></map>',
      '<area href="/beds" shape="rect" coords="0,0,9,9">',
    ],
    [`<input type="image" ${BEANS} width="40">`, `<input type="image" ${BEANS} width="40">`],
    [
      `<figure><img ${BEANS} width="90"><figcaption>Beans</figcaption></figure>`,
      `<img ${BEANS} width="90">`,
    ],
    [
      '<span role="img" aria-labelledby="gone">🌱</span>',
      '<span role="img" aria-labelledby="gone">',
    ],
    [
      `<picture><source srcset="https://static.rootcellar.example/beans.png"><img ${BEANS} width="90"></picture>`,
      `<img ${BEANS} width="90">`,
    ],
    [
      '<p id="p"></p><script>document.querySelector("#p").append(new Image(40, 40))</script>',
      '<script>',
    ],
    // Of drawings in the source vector-unnamed tells.
    ['<svg role="img" width="20" height="20"></svg>', null],
    [
      '<p id="p"></p><script>document.querySelector("#p").innerHTML = `<svg role="img" width="20" height="20"></svg>`</script>',
      '<script>',
    ],
    ['<b role="IMG presentation">🌱</b>', '<b role="IMG presentation">'],
    [
      `<details><summary>Beds</summary><img ${BEANS} width="90"></details>`,
      `<img ${BEANS} width="90">`,
    ],
    [`<label for="go">Look</label><input id="go" type="image" ${BEANS} width="40">`, null],
    [`<img ${BEANS} width="90" alt>`, null],
    [`<div aria-hidden="true"><img ${BEANS} width="90"></div>`, null],
    [`<img ${BEANS} width="90" role="none">`, null],
    [`<img ${BEANS} width="90" hidden>`, null],
    [`<img ${BEANS} width="90" title="Beans">`, null],
    [`<img ${BEANS} width="90" style="visibility: hidden">`, null],
    [`<img ${BEANS} width="2" height="2">`, null],
    [`<noscript><img ${BEANS} width="90"></noscript>`, null],
    [
      `<img ${BEANS} width="90" id="late"><script>document.querySelector("#late").alt = "Beans"</script>`,
      null,
    ],
    ['<map name="n"><area shape="rect" coords="0,0,9,9"></map>', null],
    ['<svg role="img" width="20" height="20"><title>Beans</title></svg>', null],
    ['<svg width="20" height="20"></svg>', null],
  ],
  'script-weight-over-limit': [
    [
      '<iframe title="Visits" style="max-width: 100%; border: 0" src="https://tally.example/frame"></iframe>',
      '<iframe title="Visits" style="max-width: 100%; border: 0" src="https://tally.example/frame">',
    ],
    [
      '<p>a</p><script src="https://tally.example/small.js"></script><script>document.head.append(Object.assign(document.createElement("script"), { src: "https://cdn.tallyroot.example/charts.js" }))</script>',
      '<script>',
    ],
    ['<script src="https://tally.example/small.js"></script>', null],
    ['<link rel="preconnect" href="https://cdn.tallyroot.example">', null],
  ],
  'host-private-address': [
    [
      '<p style="background: url(https://10.0.0.9/leaf.png)">Sow</p>',
      '<p style="background: url(https://10.0.0.9/leaf.png)">',
    ],
    [
      '<img src="https://static.rootcellar.example/moved.png" alt="Beans" width="40">',
      '<img src="https://static.rootcellar.example/moved.png" alt="Beans" width="40">',
    ],
    [
      `<img ${BEANS} srcset="https://192.168.1.9/b.png 4x" alt="Beans" width="40">`,
      'srcset="https://192.168.1.9/b.png 4x"',
    ],
    [
      '<iframe title="Desk" style="max-width: 100%" src="http://desk.localhost/"></iframe>',
      'src="http://desk.localhost/"',
    ],
    ['<script>fetch("https://[::1]:8443/").catch(() => 0)</script>', '<script>'],
    ['<a href="http://192.168.1.9/">The printer</a>', null],
    ['<img src="https://nobody.loam.example/x.png" alt="Beans" width="40">', null],
  ],
  'frame-refused': [
    [
      `<iframe title="Talk" ${STATIC} srcdoc="<iframe title='Talk' src='https://player.loam.example/watch/talk'></iframe>"></iframe>`,
      `<iframe title="Talk" ${STATIC} srcdoc="<iframe title='Talk' src='https://player.loam.example/watch/talk'></iframe>">`,
    ],
    [
      `<iframe title="Talk" ${STATIC} srcdoc="<iframe title='Talk' src='https://player.loam.example/embed/talk'></iframe>"></iframe>`,
      null,
    ],
    // A film as a whole document.
    [`<iframe title="Rain" ${STATIC} src="https://media.loam.example/rain.mp4"></iframe>`, null],
    [
      '<iframe title="Talk" src="https://player.loam.example/watch/talk"></iframe>',
      'src="https://player.loam.example/watch/talk"',
    ],
    [
      '<iframe title="Talk" src="https://player.loam.example/forbidden"></iframe>',
      'src="https://player.loam.example/forbidden"',
    ],
    [
      '<iframe title="Talk" src="https://player.loam.example/status/503"></iframe>',
      'src="https://player.loam.example/status/503"',
    ],
    [
      '<iframe title="Talk" src="https://player.loam.example/moved/gone"></iframe>',
      'src="https://player.loam.example/moved/gone"',
    ],
    [
      '<iframe title="Talk" src="https://nobody.invalid/embed"></iframe>',
      'src="https://nobody.invalid/embed"',
    ],
    [
      '<script>document.body.append(Object.assign(document.createElement("iframe"), { src: "https://player.loam.example/watch/x" }))</script>',
      '<script>',
    ],
    ['<iframe title="Talk" src="https://player.loam.example/embed/talk"></iframe>', null],
    ['<iframe title="Talk" src="https://player.loam.example/moved/embed/talk"></iframe>', null],
    ['<iframe title="Talk" src="https://player.loam.example/status/403"></iframe>', null],
    ['<iframe title="Talk" src="https://player.loam.example/status/429"></iframe>', null],
    ['<iframe title="Talk" srcdoc="<p>Sow</p>"></iframe>', null],
    ['<iframe title="Desk" src="https://192.168.1.9/"></iframe>', null],
  ],
  'nothing-rendered': [
    [
      '<p style="position: absolute; left: -9999px">Sow</p>',
      '<p style="position: absolute; left: -9999px">',
    ],
    [
      '<div style="mask: linear-gradient(transparent, transparent)"><p>Sow</p></div>',
      '<div style="mask: linear-gradient(transparent, transparent)">',
    ],
    [
      '<p style="color: transparent; filter: none; text-shadow: none">Sow</p>',
      '<p style="color: transparent; filter: none; text-shadow: none">',
    ],
    [
      '<style>@keyframes show { to { clip-path: inset(0) } } .late { clip-path: inset(100%); animation: show 1s 6s forwards }</style><p class="late">Sow</p>',
      null,
    ],
    ['<hr style="transform: translateY(4px)">', null],
    ['<p style="position: absolute; left: -9999px">Beans, says the desk</p><p>Sow</p>', null],
    ['<p>Sow</p></p>', null],
    // Where it is widest it has faded away.
    [
      '<style>@keyframes in { 0% { opacity: 0; transform: translateX(1400px) } 1%, 100% { opacity: 1; transform: none } } .b { animation: in 5s infinite }</style><p class="b">Sow</p>',
      null,
    ],
    [
      '<div id="a" style="display: none">Sow</div><script>document.querySelector("#accept").onclick = () => document.querySelector("#a").style.display = "block"</script>',
      null,
      {
        page: PAGE.replace('<nav>', '<nav><button id="accept">Yes</button>'),
        steps: [{ click: '#accept' }],
      },
    ],
    [
      '<div id="a" style="display: none">Sow</div><script>document.querySelector("#accept").onclick = () => document.querySelector("#a").style.display = "block"</script>',
      '<div id="a" style="display: none">',
      { page: PAGE.replace('<nav>', '<nav><button id="accept">Yes</button>') },
    ],
    ['<p></p><div></div>', '<p>'],
    ['<p style="visibility: hidden">Sow</p>', '<p style="visibility: hidden">'],
    ['<div style="opacity: 0"><p>Sow</p><b>Reap</b></div>', '<div style="opacity: 0">'],
    ['<p style="opacity: 0">Sow</p>', '<p style="opacity: 0">'],
    [
      '<div id="box"></div><script>document.querySelector("#box").textContent = ""</script>',
      '<div id="box">',
    ],
    [
      '<audio src="https://media.loam.example/talk.mp4"></audio><p hidden>Sow</p>',
      '<audio src="https://media.loam.example/talk.mp4">',
    ],
    ['<div><audio src="https://media.loam.example/talk.mp4"></audio></div>', null],
    [
      '<div id="d" style="height: 1500px"></div><p id="late" style="opacity: 0; transition: opacity 0.3s">Sow</p><script>d.remove(); new IntersectionObserver((all) => { late.style.opacity = all[0].isIntersecting ? 1 : 0 }).observe(late)</script>',
      null,
    ],
    ['<style>p { color: red }</style><!-- nothing more -->', null],
    [
      '<div id="box"></div><script>setTimeout(() => { document.querySelector("#box").textContent = "Beans" }, 500)</script>',
      null,
    ],
    ['<div style="height: 20px; background: #3d5a73"></div>', null],
    ['<style>@media (max-width: 600px) { p { display: none } }</style><p>Sow</p>', null],
    [`<img ${BEANS} alt="Beans">`, null],
  ],
  'autoplay-did-not-start': [
    [
      `<video ${TALK} autoplay muted preload="auto" style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").pause()</script>`,
      null,
    ],
    [
      `<video ${TALK} autoplay muted preload="auto" style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      'autoplay',
      { page: `${PAGE}<script>document.querySelector("video")?.pause()</script>` },
    ],
    [
      `<button onclick="f.hidden = false">Film</button><div id="f" hidden><video ${TALK} autoplay muted></video></div>`,
      null,
    ],
    [`<details><summary>Film</summary><video ${TALK} autoplay muted></video></details>`, null],
    [
      `<div style="height: 3000px"></div><video ${TALK} autoplay muted style="width: 100%; aspect-ratio: 16 / 9"></video>`,
      null,
    ],
    [`<video ${TALK} autoplay muted loop style="width: 100%; aspect-ratio: 16 / 9"></video>`, null],
    [
      '<video src="https://media.loam.example/gone.mp4" autoplay muted playsinline style="width: 100%; aspect-ratio: 16 / 9"></video>',
      null,
    ],
    [
      `<video ${TALK} autoplay muted style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").addEventListener("playing", (e) => e.target.pause())</script>`,
      null,
    ],
  ],
  'outage-harms-page': [
    [
      '<p>Sow</p><script src="https://tally.example/small.js"></script>',
      '<script src="https://tally.example/small.js">',
    ],
    [
      '<p>Sow</p><script>document.write("<script src=https://tally.example/small.js><\\/script>")</script>',
      '<script>',
    ],
    ['<style>@import "https://static.rootcellar.example/type.css";</style><p>Sow</p>', '<style>'],
    // The page is hidden until the vendor has come; or for two seconds at most.
    [
      '<p>Sow</p><script>const whole = document.documentElement.style; whole.opacity = 0</script><script async src="https://tally.example/small.js" onload="whole.opacity = 1"></script>',
      '<script async src="https://tally.example/small.js" onload="whole.opacity = 1">',
      { page: HOST },
    ],
    [
      '<p>Sow</p><script>const whole = document.documentElement.style; whole.opacity = 0; setTimeout(() => (whole.opacity = 1), 2000)</script><script async src="https://tally.example/small.js" onload="whole.opacity = 1"></script>',
      null,
      { page: HOST },
    ],
    [
      '<p>Sow</p><link rel="stylesheet" href="https://static.rootcellar.example/type.css">',
      '<link rel="stylesheet" href="https://static.rootcellar.example/type.css">',
    ],
    ['<p>Sow</p><script defer src="https://tally.example/small.js"></script>', null],
    [
      '<p>Sow</p><script>document.head.append(Object.assign(document.createElement("link"), { rel: "stylesheet", href: "https://static.rootcellar.example/type.css" }))</script>',
      null,
    ],
    [
      `<p>Sow</p><img ${BEANS} width="160" height="120" alt="Beans"><iframe ${FRAME} ${STATIC}></iframe>`,
      null,
    ],
  ],
  'script-blocks-page': [
    [
      '<p>Sow</p><script>document.write("<script src=https://tally.example/small.js><\\/script>")</script>',
      '<script>',
    ],
    [
      '<p id="b">Sow</p><script>document.write("<b>x</b>"); b.append(Object.assign(document.createElement("script"), { src: "https://tally.example/small.js" }))</script>',
      null,
    ],
    [
      '<p>Sow</p><script src="https://tally.example/small.js"></script>',
      '<script src="https://tally.example/small.js">',
    ],
    [
      '<script src="https://tally.example/gone.js"></script>',
      '<script src="https://tally.example/gone.js">',
    ],
    ['<script defer src="https://tally.example/small.js"></script>', null],
    ['<noscript><script src="https://tally.example/small.js"></script></noscript>', null],
  ],
  'frame-unnamed': [
    [
      `<div id="f"></div><script>f.append(Object.assign(document.createElement("iframe"), { src: "https://maps.fernmap.example/embed/x" }))</script>`,
      '<script>',
    ],
    [
      `<div id="f"></div><script>f.append(Object.assign(document.createElement("iframe"), { src: "https://maps.fernmap.example/embed/x", title: "Beds" }))</script>`,
      null,
    ],
    [`<iframe id="f" ${MAP}></iframe><script>f.title = "Beds"</script>`, null],
    [
      `<div id="f"></div><script>f.append(Object.assign(document.createElement("iframe"), { src: "https://maps.fernmap.example/embed/x", width: 1, height: 1 }))</script>`,
      null,
    ],
  ],
  'address-works-only-here': [
    [
      `<iframe title="Beds" ${STATIC} src="https://player.loam.example/moved/sign-in"></iframe>`,
      'src="https://player.loam.example/moved/sign-in"',
    ],
    [`<iframe title="Beds" ${STATIC} src="https://player.loam.example/sign-in"></iframe>`, null],
    [
      `<iframe title="Beds" ${STATIC} src="https://player.loam.example/moved/embed/talk"></iframe>`,
      null,
    ],
  ],
  'page-taken-over': [
    ['<script>prompt("Your name?")</script>', 'prompt('],
    [
      '<form id="f" action="https://maps.fernmap.example/embed/x"></form><script>document.querySelector("#f").submit()</script>',
      'submit',
    ],
    ['<script>setTimeout(() => location.reload(), 600)</script>', 'location'],
    ['<script>location.hash = "sow"; history.pushState(null, "", "/x")</script>', null],
    ['<script>for (const end = Date.now() + 400; Date.now() < end; );</script>', null],
    ['<script>setInterval(() => document.title, 0)</script>', null],
    ['<button onclick="location.reload()">Again</button>', null],
    [
      '<dialog id="d">Sow</dialog><p>Sow</p><script>document.getElementById("d").showModal()</script>',
      '<dialog id="d">',
    ],
    [
      '<div id="d" popover>Sow</div><p>Sow</p><script>document.getElementById("d").showPopover()</script>',
      '<div id="d" popover>',
    ],
    ['<dialog open style="position: static">Sow</dialog><p>Sow</p>', null],
    [
      '<button popovertarget="d">More</button><div id="d" popover>Sow</div><p>Sow</p><script>1</script>',
      null,
    ],
  ],
  'text-too-small': [
    ['<p>Beans<sup><a href="/n" style="font-size: 9px">note</a></sup></p>', null],
    [
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px" srcdoc="<p>Sow<sup><b style=\'font-size: 9px\'>note</b></sup></p>"></iframe>',
      null,
    ],
    [
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px" srcdoc="<p style=\'font-size: 9px\'>Sow thinly</p>"></iframe>',
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px" srcdoc="<p style=\'font-size: 9px\'>Sow thinly</p>">',
    ],
    [
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px; transform: scale(0.5)" srcdoc="<p>Sow thinly</p>"></iframe>',
      'transform: scale(0.5)',
    ],
    [
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px" srcdoc="<p>Sow<sup style=\'font-size: 7px\'>1</sup> <span style=\'font-size: 7px; visibility: hidden\'>thinly</span></p>"></iframe>',
      null,
    ],
    [
      '<iframe title="Notes" style="border: 0; width: 100%; height: 120px; transform: scale(2); transform-origin: 0 0; width: 50%" srcdoc="<p style=\'font-size: 8px\'>Sow thinly</p>"></iframe>',
      null,
    ],
    [
      '<style>.fine { font: 9px/1.4 Arimo }</style><p class="fine">Sow <b>thinly</b></p>',
      'font: 9px/1.4 Arimo',
    ],
    ['<p style="zoom: 0.6">Sow thinly</p>', 'zoom: 0.6'],
    ['<div style="scale: 0.5 0.9"><p>Sow thinly</p></div>', 'scale: 0.5 0.9'],
    ['<font size="1">Sow thinly</font>', '<font size="1">'],
    [
      '<svg width="300" height="60" viewBox="0 0 900 180"><text y="30" font-size="14">Beans</text></svg>',
      '<svg width="300" height="60" viewBox="0 0 900 180">',
    ],
    [
      '<script>document.currentScript.insertAdjacentHTML("afterend", "<p style=font-size:8px>Sow</p>")</script>',
      '<script>',
    ],
    ['<p style="transform: rotate(90deg)">Sow thinly</p>', null],
    ['<p>Sow <b style="transform: scale(0.2)">thinly</b></p>', null],
    [
      '<svg width="300" height="60" viewBox="0 0 150 30"><text y="20" font-size="8">Beans</text></svg>',
      null,
    ],
    ['<div style="font-size: 0"><span style="font-size: 14px">Beans</span> · </div>', null],
    [
      '<span style="position: absolute; width: 1px; height: 1px; overflow: hidden; font-size: 9px">Opens a new window</span>',
      null,
    ],
    ['<p style="font-size: 8px; display: none">Sow</p><p style="font-size: 8px">· — ·</p>', null],
  ],
  'shrunk-not-reflowed': [
    [
      '<style>@media (max-width: 400px) { .a { font-size: 10px } }</style><p class="a">Sow thinly</p>',
      'font-size: 10px',
    ],
    [
      '<style>@media (max-width: 400px) { .a { transform: scale(0.6) } }</style><p class="a">Sow thinly</p>',
      'transform: scale(0.6)',
    ],
    [
      '<svg viewBox="0 0 600 60" style="width: 100%"><svg viewBox="0 0 20 10" width="40"><text y="8" font-size="9">Beans</text></svg></svg>',
      '<svg viewBox="0 0 20 10" width="40">',
    ],
    ['<p style="font-size: clamp(12px, 2vw, 18px)">Sow thinly</p>', null],
    ['<p style="font-size: 9px">Sow thinly</p>', null],
  ],
  'content-cut-off': [
    [
      '<p style="height: 20px; overflow: hidden">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one, and wait again.</p>',
      'height: 20px',
    ],
    [
      '<p style="white-space: nowrap; overflow: hidden">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one, and wait again.</p>',
      'overflow: hidden',
    ],
    [
      '<div style="contain: paint; height: 20px">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one, and wait again.</div>',
      'height: 20px',
    ],
    ['<p style="overflow: hidden; font-size: 30px; line-height: 0.8">Sow</p>', null],
    [
      '<p style="height: 20px; overflow: hidden; transition: height 1s">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one, and wait again.</p>',
      null,
    ],
    [
      '<a href="/beds" style="display: block; width: 90px; height: 60px; overflow: hidden; text-indent: 100%; white-space: nowrap; background: #274029">Beds</a>',
      null,
    ],
    [
      '<div style="max-height: 30px; overflow: clip"><p style="margin: 0">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one.</p></div>',
      'max-height: 30px',
    ],
    [
      '<div style="overflow-x: hidden"><p style="white-space: nowrap">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one, and wait again until the leaves are as long as a hand.</p></div>',
      'overflow-x: hidden',
    ],
    [
      '<div style="overflow: hidden; width: 200px; height: 60px"><button style="margin-left: 160px; width: 120px">Order</button></div>',
      'overflow: hidden',
    ],
    [
      '<style>html { overflow-x: hidden }</style><p style="width: 1500px; text-align: right">Sow in May</p>',
      '<p style="width: 1500px; text-align: right">',
    ],
    [
      '<div style="position: relative; overflow: hidden; height: 40px"><p style="position: absolute; top: 60px">Sow in May</p></div>',
      'height: 40px',
    ],
    // What is put against another box escapes the clipping.
    [
      '<div style="overflow: hidden; height: 40px"><p style="position: absolute; margin-top: 60px">Sow in May</p></div>',
      null,
    ],
    ['<div style="overflow: hidden; height: 40px; line-height: 1"><b>Sow in May</b></div>', null],
    [
      `<div style="overflow: hidden; height: 100px"><img ${BEANS} alt="Beans" style="width: 100%; height: 160px"></div>`,
      null,
    ],
    [
      '<div style="overflow: hidden; height: 40px"><div style="height: 40px; overflow-y: auto"><p>Sow</p><p>Wait</p><p>Reap</p></div></div>',
      null,
    ],
    [
      '<span style="position: absolute; width: 1px; height: 1px; overflow: hidden">Opens a new window</span>',
      null,
    ],
    ['<p style="overflow: hidden; text-indent: -9999px; width: 90px; height: 30px">Seed</p>', null],
    [
      '<p style="display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 1; overflow: hidden">Sow thinly in rows a hand apart, water well, and wait for three weeks, then pull out every other one.</p>',
      null,
    ],
    [
      '<div style="overflow: hidden; height: 24px"><div style="transition: transform 1s"><p style="margin: 0">Sow</p><p>Wait</p></div></div>',
      null,
    ],
    [
      '<div style="overflow: hidden; height: 24px"><p style="margin: 0">Sow</p><p style="margin-top: 30px">Wait</p></div><script>document.title</script>',
      null,
    ],
    ['<details><summary>Sow</summary><p>Wait</p></details>', null],
    ['<svg width="200" height="30"><text x="10" y="60">Beans</text></svg>', null],
  ],
  'content-jumps': [
    [
      '<div id="a" style="height: 0"></div><p>Sow in May</p><script>setTimeout(() => document.querySelector("#a").style.height = "400px", 500)</script>',
      '<div id="a" style="height: 0">',
    ],
    [
      '<p>Sow in May</p><script>setTimeout(() => document.querySelector("h1").before(Object.assign(document.createElement("div"), { style: "height: 400px" })), 500)</script>',
      '<script>',
    ],
    [
      '<p id="a">Sow in May</p><script>setTimeout(() => document.querySelector("#a").style.transform = "translateY(300px)", 500)</script>',
      null,
    ],
    [
      '<div id="a"></div><script>setTimeout(() => document.querySelector("#a").style.height = "8px", 500)</script>',
      null,
    ],
  ],
  'covered-by-layer': [
    [
      `<div style="position: relative"><iframe title="Map" ${MAP} ${STATIC}></iframe><div style="position: absolute; inset: 0"></div></div>`,
      `<iframe title="Map" ${MAP} ${STATIC}>`,
    ],
    [
      '<div style="display: grid"><input aria-label="Seed" style="grid-area: 1 / 1"><p style="grid-area: 1 / 1; margin: 0">Seed</p></div>',
      '<input aria-label="Seed" style="grid-area: 1 / 1">',
    ],
    [
      '<p style="height: 1500px">Sow</p><div style="position: relative"><button>Order</button><i style="position: absolute; inset: 0"></i></div>',
      '<button>',
    ],
    [
      `<div style="position: relative"><iframe title="Map" ${MAP} ${STATIC}></iframe><div onclick="this.remove()" style="position: absolute; inset: 0"></div></div>`,
      null,
    ],
    [
      '<label style="position: relative; display: block"><input type="checkbox"><span style="position: absolute; inset: 0">Beans</span></label>',
      null,
    ],
    [
      '<div style="position: relative"><a href="/order" style="display: block">Order</a><div style="position: absolute; top: 0; left: 0; width: 40%; height: 100%"></div></div>',
      null,
    ],
    [
      '<a href="/order" style="display: block; padding: 20px"><span style="display: block">Order</span></a><div style="position: fixed; left: 0; right: 0; bottom: 0; height: 60px"></div>',
      null,
    ],
    [
      '<button disabled>Order</button><a href="/x" style="position: absolute; left: -900px">To the text</a>',
      null,
    ],
  ],
  'covers-host-controls': [
    [
      '<div style="position: absolute; left: 0; right: 0; top: 0; height: 300px"></div><p>Sow</p>',
      '<div style="position: absolute; left: 0; right: 0; top: 0; height: 300px">',
      { page: PAGE },
    ],
    [
      '<script>document.body.insertAdjacentHTML("beforeend", "<div style=\'position: fixed; inset: 0\'></div>")</script><p>Sow</p>',
      '<script>',
      { page: PAGE },
    ],
    [
      '<div style="position: fixed; inset: 0; pointer-events: none"></div><p>Sow</p>',
      null,
      { page: PAGE },
    ],
    [
      '<div style="position: absolute; right: 0; top: 0; width: 90px; height: 9px"></div>',
      null,
      { page: PAGE },
    ],
  ],
  'text-contrast-low': [
    [
      '<style>.f::placeholder { color: #bbb }</style><input class="f" aria-label="Seed" placeholder="Which seed" style="background: #fff">',
      '<input class="f" aria-label="Seed" placeholder="Which seed" style="background: #fff">',
    ],
    [
      '<style>.f::placeholder { color: #bbb }</style><input class="f" aria-label="Seed" placeholder="Which seed" value="Beans" style="background: #fff; color: #222">',
      null,
    ],
    ['<input aria-label="Seed" placeholder="Which seed">', null],
    // The first line has a look of its own: where all stands on it, no letter has the other.
    [
      '<style>.n { width: 60px; background: #9aa; color: #9aa } .n::first-line { color: #000 }</style><div class="n">7</div>',
      null,
    ],
    [
      '<style>.n { background: #fff; color: #222 } .n::first-line { color: #ccc }</style><p class="n">Sow</p>',
      'color: #ccc',
    ],
    [
      '<style>.n { background: #fff; color: #222; max-width: 6em } .n::first-line { color: #ccc }</style><p class="n">Sow thinly in rows a hand apart</p>',
      'color: #ccc',
    ],
    [
      '<style>.n { background: #fff; color: #ccc; max-width: 6em } .n::first-line { color: #222 }</style><p class="n">Sow thinly in rows a hand apart</p>',
      'color: #ccc',
    ],
    [
      '<style>.n { background: #fff; color: #ccc } .n::first-line { color: #222 }</style><p class="n"><em>Sow</em> thinly</p>',
      null,
    ],
    [
      '<div style="background: linear-gradient(#fff, #000)"><p style="color: #888">Sow</p></div>',
      'color: #888',
      { insert: 'shadow' },
    ],
    [
      '<div style="background: linear-gradient(#fff, #eee)"><p style="color: #222">Sow</p></div>',
      null,
      { insert: 'shadow' },
    ],
    [
      '<a href="/beds" style="display: block; width: 90px; height: 60px; overflow: hidden; text-indent: -999em; background: #274029">Beds</a>',
      null,
    ],
    [
      '<span style="position: absolute; clip: rect(0, 0, 0, 0); color: #bbb">Beds</span><p>Sow</p>',
      null,
    ],
    [
      '<span style="position: absolute; clip-path: inset(50%); color: #bbb">Beds</span><p>Sow</p>',
      null,
    ],
    [
      '<div style="overflow: auto; height: 40px" tabindex="0"><p style="height: 60px">Sow</p><p style="color: #bbb">Peas</p></div>',
      'color: #bbb',
    ],
    [
      '<div style="overflow: hidden; height: 40px"><p style="height: 60px">Sow</p><p style="color: #bbb">Peas</p></div>',
      null,
    ],
    [
      '<div style="opacity: 0.4"><p style="background: #fff">Sow</p></div>',
      '<p style="background: #fff">',
    ],
    ['<div style="background: #333"><p style="color: #777">Sow in May</p></div>', 'color: #777'],
    [
      '<p style="color: rgb(0 0 0 / 40%); background: white">Sow in May</p>',
      'color: rgb(0 0 0 / 40%)',
    ],
    ['<p style="color: oklch(0.8 0 0); background: white">Sow in May</p>', 'color: oklch(0.8 0 0)'],
    [
      '<p style="background: linear-gradient(#000, #111); color: #333; padding: 20px">Sow in May</p>',
      'color: #333',
    ],
    [
      '<div style="position: relative; height: 90px"><div style="background: #123; height: 90px"></div><p style="position: absolute; top: 0; color: #234">Sow in May</p></div>',
      'color: #234',
    ],
    [
      '<svg viewBox="0 0 90 20"><text y="15" fill="#bbb">Beans</text></svg>',
      '<text y="15" fill="#bbb">',
    ],
    ['<p style="color: #767676; background: #fff">Sow in May</p>', null],
    ['<button disabled style="color: #bbb; background: #fff">Sow</button>', null],
    ['<h2 style="color: #949494; background: #fff; font-size: 24px">Sow</h2>', null],
    ['<b style="color: #949494; background: #fff; font-size: 18.7px">Sow</b>', null],
    ['<p style="color: #fff; background: #fff; display: none">Sow</p>', null],
    ['<p style="color: #fff; background: url(data:,x) #333">Sow in May</p>', null],
    [
      '<p>Sow in May</p>',
      null,
      { page: PAGE.replace('<nav>', '<style>body { color: #aaa }</style><nav>') },
    ],
  ],
  'off-centre': [
    [
      `<div style="width: 200px"><iframe title="Map" ${MAP} style="border: 0; width: 100%; height: 90px"></iframe></div>`,
      '<div style="width: 200px">',
    ],
    [
      '<p style="width: 150px; margin: 0">Sow</p>',
      '<p style="width: 150px; margin: 0">',
      { slots: { column: { width: 680, inset: 16, align: 'center' } } },
    ],
    [
      '<p style="width: 150px; margin: 0 auto">Sow</p>',
      '<p style="width: 150px; margin: 0 auto">',
      { slots: { column: { width: 680, inset: 16, align: 'end' } } },
    ],
    [
      '<p style="width: 150px; margin: 0 0 0 auto">Sow</p>',
      null,
      { slots: { column: { width: 680, inset: 16, align: 'end' } } },
    ],
    [
      `<div style="display: flex"><iframe title="Map" ${MAP} style="border: 0; width: 70%; height: 90px"></iframe><p>Sow</p></div>`,
      null,
    ],
    [`<iframe title="Badge" ${MAP} style="border: 0; width: 90px; height: 90px"></iframe>`, null],
  ],
  'frame-permission-missing': [
    [
      '<iframe title="Look round" src="https://maps.fernmap.example/embed/x?gyro=1" style="border: 0; width: 100%; height: 90px"></iframe>',
      'src="https://maps.fernmap.example/embed/x?gyro=1"',
    ],
    [
      '<iframe title="Talk" src="https://player.loam.example/embed/talk?autoplay=1&amp;quiet=1" allow="autoplay \'none\'" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      'allow="autoplay \'none\'"',
    ],
    [
      '<iframe title="Talk" src="https://player.loam.example/embed/talk?fs=1" allowfullscreen style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      null,
    ],
    [
      '<iframe title="Own" src="/embed?autoplay=1&amp;muted=1" style="border: 0; width: 100%; height: 90px"></iframe>',
      null,
    ],
  ],
  'frame-resize-unheard': [
    [
      `<script>addEventListener("message", ({ data }) => { if (data.h) document.querySelector("#o").style.height = data.h + 20 + "px" })</script><iframe id="o" title="Order" ${STATIC} srcdoc="<div style='height: 250px'>Seed</div><script>addEventListener('resize', tell); function tell() { parent.postMessage({ h: document.documentElement.scrollHeight }, '*') }; tell()</script>"></iframe>`,
      'height: 200px',
    ],
    [
      `<iframe title="Order" ${STATIC} srcdoc="${POSTS}'frame:height:516', '*')</script>"></iframe>`,
      'height: 200px',
    ],
    [
      `<iframe title="Order" ${STATIC} srcdoc="${POSTS}JSON.stringify({ type: 'resize', size: { height: 516 } }), '*')</script>"></iframe>`,
      'height: 200px',
    ],
    [
      `<script>addEventListener("message", ({ data }) => { if (data.h) document.querySelector("#o").style.height = data.h + "px" })</script><iframe id="o" title="Order" ${STATIC} srcdoc="<div style='min-height: 100vh; border: 9px solid'>Seed</div><script>addEventListener('resize', tell); function tell() { parent.postMessage({ h: document.documentElement.scrollHeight }, '*') }; tell()</script>"></iframe>`,
      'height: 200px',
    ],
    [
      `<iframe title="Order" ${STATIC} srcdoc="${POSTS}{ ready: true }, '*')</script>"></iframe>`,
      null,
    ],
    [
      `<iframe title="Order" ${STATIC} srcdoc="<p style='height: 90px; margin: 0'>Seed</p><script>parent.postMessage({ height: 90 }, '*')</script>"></iframe>`,
      null,
    ],
  ],
  'frame-mostly-empty': [
    [
      '<iframe title="Hours" srcdoc="<p style=\'margin: 0; height: 60px\'>Open</p>" style="border: 0; width: 100%; height: 150px"></iframe>',
      null,
    ],
    [
      '<iframe title="Hours" srcdoc="<p style=\'margin: 0\'>Open</p>" style="border: 0; width: 100%; height: 300px"></iframe>',
      'height: 300px',
    ],
    [
      '<iframe title="Beds" srcdoc="<style>body { margin: 0; min-height: 100vh; background: #eee }</style>Beds" style="border: 0; width: 100%; height: 300px"></iframe>',
      null,
    ],
  ],
  'blocked-by-host-policy': [
    [
      '<p>Sow</p><img alt="Beans" width="9" height="9" src="https://static.rootcellar.example/beans.png">',
      'src="https://static.rootcellar.example/beans.png"',
      { headers: { 'content-security-policy': "img-src 'self'" } },
    ],
    [
      '<p style="color: #b00">Sow</p>',
      '<p style="color: #b00">',
      { headers: { 'content-security-policy': "style-src 'self'" } },
    ],
    [
      '<iframe title="Map" allow="camera" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 90px"></iframe>',
      'allow="camera"',
      { headers: { 'permissions-policy': 'camera=()' } },
    ],
    [
      '<button onclick="this.remove()">Sow</button>',
      null,
      { headers: { 'content-security-policy': "script-src 'self' 'unsafe-inline'" } },
    ],
    [
      '<iframe title="Map" allow="camera" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 90px"></iframe>',
      null,
      { headers: { 'permissions-policy': 'camera=(self "https://maps.fernmap.example")' } },
    ],
  ],
  'script-idle-when-late': [
    [
      '<p id="a">Sow</p><script>addEventListener("load", () => document.querySelector("#a").remove())</script>',
      '<script>',
      { insert: 'late', lateScripts: true },
    ],
    [
      '<p>Sow</p><script>1</script><script>onload = () => 1</script>',
      '<script>',
      { insert: 'late', lateScripts: true },
    ],
    [
      '<p id="a">Sow</p><script>document.readyState === "loading" ? addEventListener("load", () => 1) : document.querySelector("#a").append("n")</script>',
      null,
      { insert: 'late', lateScripts: true },
    ],
    ['<p>Sow</p><script>addEventListener("load", () => 1)</script>', null, { insert: 'inline' }],
  ],
  'keyboard-trapped': [
    [
      '<div id="box"><button id="a">One</button><button id="b">Two</button></div><script>document.querySelector("#box").addEventListener("keydown", (event) => { if (event.key !== "Tab") return; event.preventDefault(); document.querySelector(document.activeElement.id === "a" ? "#b" : "#a").focus() })</script>',
      '<button id="b">',
    ],
    [
      '<input id="a" aria-label="Seed"><script>document.querySelector("#a").addEventListener("blur", (event) => setTimeout(() => event.target.focus()))</script>',
      '<input id="a" aria-label="Seed">',
    ],
    [
      '<button id="a">One</button><script>document.querySelector("#a").addEventListener("keydown", (event) => { if (event.key === "Tab" && !event.shiftKey) event.preventDefault() })</script>',
      null,
    ],
    [`<iframe title="Order" ${STATIC} srcdoc="<input><input>"></iframe>`, null],
  ],
  'scroll-caught': [
    [
      '<canvas id="a" width="300" height="300" style="display: block; width: 100%; background: #eee"></canvas><script>document.querySelector("#a").addEventListener("touchmove", (event) => event.preventDefault(), { passive: false })</script>',
      '<canvas id="a" width="300" height="300" style="display: block; width: 100%; background: #eee">',
    ],
    [
      '<iframe title="Map" style="border: 0; width: 100%; height: 300px" srcdoc="<div style=\'height: 280px; touch-action: none\'>Beds</div>"></iframe>',
      '<iframe title="Map" style="border: 0; width: 100%; height: 300px" srcdoc="<div style=\'height: 280px; touch-action: none\'>Beds</div>">',
    ],
    [
      '<div tabindex="0" style="height: 300px; overflow: auto; overscroll-behavior: contain"><p style="height: 900px">Beans</p></div>',
      'overscroll-behavior: contain',
    ],
    [
      '<div tabindex="0" style="height: 90vh; overflow: auto"><p style="height: 1900px">Beans</p></div>',
      'height: 90vh',
    ],
    ['<div style="width: 60%; height: 400px; touch-action: none">Beds</div>', null],
    ['<div style="height: 60px; touch-action: none">Slide</div>', null],
    [
      '<iframe title="List" style="border: 0; width: 100%; height: 300px" srcdoc="<p style=\'height: 900px\'>Beans</p>"></iframe>',
      null,
    ],
    [
      '<p style="height: 300px">Sow</p><script>addEventListener("touchmove", (event) => event.preventDefault())</script>',
      null,
    ],
  ],
  'site-alters-code': [
    [
      '<p>Sow</p><b onclick="this.remove()">x</b>',
      'onclick="this.remove()"',
      { filter: { remove: ['@on*'] } },
    ],
    ['<p>Sow</p><p>Water and wait</p>', '>Water and wait</p>', { filter: { maxLength: 12 } }],
    ['<style>.a { color: red }</style><p>Sow</p>', '<style>', { filter: { remove: ['style'] } }],
    [
      '<p><a href="/a">a</a>\n<a href="/b">b</a></p>',
      'href="/a">a</a>\n',
      { filter: { wrapLinesIn: 'p' } },
    ],
    ['<pre>Sow\nWait</pre><ul>\n<li>Bean\n</ul>', null, { filter: { wrapLinesIn: 'p' } }],
    ['Sow thinly.', null, { filter: { wrapLinesIn: 'p' } }],
    ['Sow\nWait', 'Sow\n', { filter: { wrapLinesIn: 'p' } }],
    ['Sow\n\nWait', 'Sow', { filter: { wrapLinesIn: 'p' } }],
    ['<p style="width: 40px">Sow\nWait</p>', null, { filter: { wrapLinesIn: 'p' } }],
    [
      '<p title="x">Sow</p><script>document.querySelector("[title]").append(".")</script>',
      'title="x"',
      { filter: { remove: ['@title'] } },
    ],
    ['<p class="a"\n  id="b">Sow</p>', null, { filter: { wrapLinesIn: 'p' } }],
  ],
  'placeholder-left-in': [
    ['<p>Come on {{ day }}</p>', '{{ day }}'],
    ['<p id="d">{{ day }}</p><script>d.textContent = "Monday"</script>', null],
    ['<p style="display: none">{{ day }}</p>', null],
    ['<a href="/beds/{{bed}}">Bed</a>', 'href="/beds/{{bed}}"'],
    ['<a href="/beds/{{bed}}">Bed</a>', null, { expands: ['{{'] }],
  ],

  'host-style-reaches-in': [
    // The look that a page lends is what is wanted.
    [
      '<h2>Sow</h2><p>Reap <a href="/a">beans</a></p>',
      null,
      {
        page: PAGE.replace(
          '<nav>',
          '<style>* { box-sizing: border-box } h2, p, a { color: #060; font-size: 30px; display: block; width: 60% }</style><nav>',
        ),
      },
    ],
    // What the snippet states for it, the page outdoes.
    [
      '<style>.a { margin: 0 }</style><p class="a">Sow</p>',
      '<p class="a">',
      {
        page: PAGE.replace('<nav>', '<style>body p:nth-child(n) { margin: 0 0 40px }</style><nav>'),
      },
    ],
    [
      '<p style="margin: 0">Sow</p>',
      null,
      {
        page: PAGE.replace('<nav>', '<style>body p:nth-child(n) { margin: 0 0 40px }</style><nav>'),
      },
    ],
    // With it something is not seen, or does not fit.
    [
      '<p><button type="button">Sow</button></p>',
      '<button type="button">',
      { page: PAGE.replace('<nav>', '<style>p button { display: none }</style><nav>') },
    ],
    [
      '<div style="width: 120px; overflow: hidden"><p style="margin: 0">Sow</p></div>',
      '<div style="width: 120px; overflow: hidden">',
      { page: PAGE.replace('<nav>', '<style>p { min-width: 200px }</style><nav>') },
    ],
    [
      '<p style="background: #fff; color: #222">Sow <a href="/a">beans</a></p>',
      '<a href="/a">',
      { page: PAGE.replace('<nav>', '<style>a { color: #ffe9a8 }</style><nav>') },
    ],
    // A name of the page’s own elements is not of both; how to speak to those who listen is the page’s to say.
    [
      '<p>Sow</p><span class="spoken">now</span>',
      null,
      {
        page: PAGE.replace(
          '<nav>',
          '<style>.column p { color: #060 } .spoken { position: absolute; width: 1px; height: 1px; overflow: hidden }</style><nav>',
        ).replace('<div data', '<div class="column" data'),
      },
    ],
    // A sheet that the snippet’s own script adds is not the page’s.
    [
      '<p class="a">Sow</p><script>document.head.append(Object.assign(document.createElement("style"), { textContent: ".a { color: #b00; width: 90px }" }))</script>',
      null,
      { page: PAGE },
    ],
    [
      '<img class="a" width="24" height="24" src="https://static.rootcellar.example/beans.png" alt="Bean">',
      '<img class="a" width="24" height="24" src="https://static.rootcellar.example/beans.png" alt="Bean">',
      { page: PAGE.replace('<nav>', '<style>img { width: 100% }</style><nav>') },
    ],
    [
      '<img width="640" height="480" src="https://static.rootcellar.example/beans.png" alt="Bean">',
      null,
      { page: PAGE.replace('<nav>', '<style>img { max-width: 100%; height: auto }</style><nav>') },
    ],
    // Without the rule the page is as low as the window: its scroll bar goes, and the block is wider by that.
    [
      '<div style="background: #eee">Sow</div>',
      null,
      {
        page: '<!doctype html><style>div { margin-bottom: 2500px }</style><main><div data-mivket-slot="column"></div></main>',
      },
    ],
    [
      '<p class="a">Sow</p>',
      '<p class="a">',
      { page: PAGE.replace('<nav>', '<style>main p, .a { color: #b00 }</style><nav>') },
    ],
    [
      '<style>.a { color: #060 }</style><p class="a">Sow</p>',
      null,
      { page: PAGE.replace('<nav>', '<style>p { color: #b00 }</style><nav>') },
    ],
    [
      '<p>Sow</p>',
      null,
      { page: PAGE.replace('<nav>', '<style>body { color: #333; font: 20px Arimo }</style><nav>') },
    ],
    [
      '<p>Sow</p>',
      null,
      {
        page: PAGE.replace(
          '<nav>',
          '<style>@media (min-width: 9000px) { p { color: red } }</style><nav>',
        ),
      },
    ],
    [
      '<p>Sow</p>',
      null,
      { page: PAGE.replace('<nav>', '<style>p { color: red }</style><nav>'), insert: 'frame' },
    ],
  ],
  'font-not-there': [
    ['<pre>Sow</pre><button>Go</button>', null, { insert: 'frame' }],
    ['<p>Sow</p>', '<p>', { insert: 'frame' }],
    [
      '<style>@font-face { font-family: Gone; src: url(https://static.rootcellar.example/none.woff2) } .a { font: 16px Gone, serif }</style><p class="a">Sow</p>',
      'font: 16px Gone, serif',
    ],
    ['<font face="Orchard">Sow</font>', 'face="Orchard"'],
    ['<p style="font-family: system-ui, Orchard">Sow</p>', null],
    [
      '<p style="font-family: &quot;Segoe UI&quot;">Sow</p><p style="font-family: Arimo">Wait</p>',
      null,
    ],
    ['<p style="font-family: Orchard; display: none">Sow</p>', null],
    ['<p style="font-family: Arimo">Sow</p>', null, { insert: 'frame' }],
  ],
  'weight-over-limit': [
    [
      '<p>Sow</p><img alt="Beans" width="9" height="9" src="https://static.rootcellar.example/beans.png">',
      '<img alt="Beans" width="9" height="9" src="https://static.rootcellar.example/beans.png">',
      { limits: { totalBytes: 500 } },
    ],
    ['<p>Sow</p>', null, { limits: { totalBytes: 0 } }],
  ],
  'alt-too-wordy': [
    [SHOWN(` alt="${'Bean '.repeat(31)}"`), `alt="${'Bean '.repeat(31)}"`],
    [SHOWN(` alt="${'Bean '.repeat(30)}"`), null],
    [`<div hidden>${SHOWN(` alt="${'Bean '.repeat(40)}"`)}</div><p>Sow</p>`, null],
  ],
  'autoplay-on-wrong-element': [
    ['<iframe title="Beds" srcdoc="<p>Sow" autoplay style="border: 0"></iframe>', 'autoplay'],
    ['<p>Sow</p><audio autoplay muted controls></audio>', null],
  ],
  'extra-page-heading': [
    ['<h1>Sow</h1>', '<h1>', { insert: 'shadow' }],
    ['<h1>Sow</h1>', null, { insert: 'frame' }],
  ],
  'page-settings-changed': [
    ['<base target="_blank"><p>Sow</p>', '<base target="_blank">', { page: PAGE }],
    [
      '<p>Sow</p><script>const m = document.createElement("meta"); m.name = "viewport"; m.content = "width=500"; document.head.append(m)</script>',
      'viewport',
    ],
    ['<p>Sow</p><script>document.documentElement.lang = "de"</script>', 'lang'],
    ['<p>Sow</p><script>document.body.className = "wide"</script>', null],
    ['<template><meta name="robots" content="noindex"></template><p>Sow</p>', null],
    ['<body class="a"><p>Sow</p></body>', '<body class="a">', { page: HOST }],
    ['<body style="color: #111"><p>Sow</p></body>', null, { page: HOST }],
    ['<body class="a"><p>Sow</p></body>', null, { page: HOST, insert: 'late' }],
    ['<title>Beans</title><p>Sow</p>', '<title>', { page: HOST }],
    [
      '<p>Sow</p><script>1</script>',
      null,
      { page: HOST.replace('<main', '<script>document.title = Math.random()</script><main') },
    ],
    ['<base href="/beds/"><p>Sow</p>', null, { insert: 'frame' }],
  ],
  'host-not-allowed': [
    [
      '<p>Sow</p><script>new Image().src = "https://count.tally.example/x.gif"</script>',
      '<script>',
      { hosts: { allow: ['*.loam.example'] } },
    ],
    [
      '<p>Sow</p><script>new Image().src = "https://count.tally.example/x.gif"</script>',
      null,
      { hosts: { allow: ['count.tally.example'] } },
    ],
    ['<p>Sow</p><img src="/x.png" alt="Beans" width="9" height="9">', null, { hosts: {} }],
    [SHOWN(' alt="Beans"'), null],
  ],
  'control-unnamed': [
    ['<a href="/beds"></a>', '<a href="/beds">'],
    ['<a href="/beds"><b class="sign" style="padding: 9px"></b></a>', '<a href="/beds">'],
    ['<button type="button"><i aria-hidden="true">×</i></button>', '<button type="button">'],
    ['<button><span style="display: none">Close</span></button>', '<button>'],
    ['<select><option>One</option></select>', '<select>'],
    ['<label><select><option>One</option></select></label>', '<select>'],
    ['<label for="b">Bed</label><textarea id="a">Sow</textarea>', '<textarea id="a">'],
    ['<div role="button" tabindex="0"></div>', '<div role="button" tabindex="0">'],
    ['<div role="textbox" contenteditable>Sow</div>', '<div role="textbox" contenteditable>'],
    ['<input type="button">', '<input type="button">'],
    ['<input type="checkbox">', '<input type="checkbox">'],
    ['<input aria-labelledby="nothing">', '<input aria-labelledby="nothing">'],
    [
      '<p id="p"></p><script>document.querySelector("#p").innerHTML = `<a href="/"><img alt="" src="/x.png"></a>`</script>',
      '<script>',
    ],
    [
      '<p id="p"><button></button></p><script>document.querySelector("button").ariaLabel = "Close"</script>',
      null,
    ],
    ['<style>.close::before { content: "Close" }</style><button class="close"></button>', null],
    [
      '<style>.sign::before { content: "\\e001" }</style><button class="sign"></button>',
      '<button class="sign">',
    ],
    ['<label for="a">Bed</label><select id="a"><option>One</option></select>', null],
    ['<label><input type="checkbox"> Beans</label><div role="checkbox">Peas</div>', null],
    ['<input title="Your name"><input type="reset"><input type="button" value="Sow">', null],
    ['<button><img alt="Close" src="/x.png" width="9" height="9"></button>', null],
    ['<a name="beds"></a><a>Beds</a><input type="hidden"><button hidden></button>', null],
    ['<div style="display: none"><input></div><div inert><input></div>', null],
    [`<a href="/beds">${SHOWN('')}</a>`, null],
    [`<a href="/beds">${SHOWN(' alt=""')}</a>`, null],
    ['<button><svg width="9" height="9"></svg></button>', null],
    ['<button><svg width="9" height="9"><title>Close</title></svg></button>', null],
    [
      '<div><template shadowrootmode="open"><button><slot></slot></button></template>Close</div>',
      null,
    ],
  ],
  'autoplay-cannot-be-stopped': [
    [`<video ${RAIN} autoplay loop></video>`, 'autoplay'],
    [`<video ${RAIN} loop id="v"></video><script>v.play()</script>`, 'loop'],
    [
      `<video ${RAIN} autoplay loop id="v"></video><button onclick="v.volume = 0">Hush</button>`,
      'autoplay',
    ],
    [`<video ${RAIN} autoplay loop id="v"></video><button onclick="v.pause()">Stop</button>`, null],
    [
      `<video ${RAIN} autoplay loop></video><p><a href="#" id="stop">Stop</a></p><script>document.querySelector("#stop").addEventListener("click", (event) => setTimeout(() => document.querySelector("video").pause()))</script>`,
      null,
    ],
    [
      `<video ${RAIN} autoplay loop></video><script>document.querySelector("video").onclick = ({ target }) => target.paused ? target.play() : target.pause()</script>`,
      null,
    ],
    [
      `<video ${RAIN} autoplay loop></video><label><input type="checkbox"> Still</label><script>document.querySelector("input").onchange = () => document.querySelector("video").remove()</script>`,
      null,
    ],
    [`<video ${RAIN} autoplay></video>`, null],
    [`<video ${RAIN} loop></video>`, null],
    [`<div hidden><video ${RAIN} autoplay loop></video></div>`, null],
  ],
  'autoplay-without-still': [
    [`<video ${RAIN} autoplay></video>`, 'autoplay'],
    [`<video ${RAIN} poster autoplay></video>`, 'autoplay'],
    [`<video ${RAIN} id="v"></video><script>v.play()</script>`, `<video ${RAIN} id="v">`],
    [
      `<style>video { background: linear-gradient(#efe9dc, #3d5a73) }</style><video ${RAIN} autoplay></video>`,
      null,
    ],
    [
      `<video ${RAIN} autoplay></video><script>document.querySelector("video").poster = "/still.png"</script>`,
      null,
    ],
    ['<video src="https://media.loam.example/nosuch.mp4" autoplay muted></video>', null],
    [`<video ${RAIN}></video>`, null],
  ],
  'script-error': [
    [
      `<iframe title="Beds" ${STATIC} srcdoc="<p>Sow</p><script>beds.sow()</script>"></iframe>`,
      `<iframe title="Beds" ${STATIC} srcdoc="<p>Sow</p><script>beds.sow()</script>">`,
    ],
    [
      `<iframe title="Beds" ${STATIC} srcdoc="<p>Sow</p><script>console.error('no bed')</script>"></iframe>`,
      null,
    ],
    ['<p>Lent</p><script>\nlet lent = ;\n</script>', ';'],
    ['<p>Lent</p><script>console.error("no such bed")</script>', 'error'],
    ['<p>Lent</p><script>setTimeout(() => { throw new Error("late") }, 60)</script>', 'new'],
    ['<p>Lent</p><script src="https://tally.example/throws.js"></script>', null],
    [
      '<p>Lent</p><script src="https://tally.example/nosuch.js"></script><script>tally()</script>',
      null,
    ],
    [
      '<iframe title="x" srcdoc="<script>nothing()</script>"></iframe>',
      '<iframe title="x" srcdoc="<script>nothing()</script>">',
    ],
    [
      `<video src="https://media.loam.example/talk.mp4" playsinline id="v"></video><script>v.play()</script>`,
      null,
    ],
    ['<p>Lent</p><script>fetch("http://10.0.0.1/")</script>', null],
    ['<p>Lent</p>', null, { page: PAGE.replace('<nav>', '<script>nothing()</script><nav>') }],
    [
      '<p>Lent</p><script>nothing()</script>',
      'nothing',
      { page: PAGE.replace('<nav>', '<script>noHost()</script><nav>') },
    ],
    [
      '<p>Lent</p><script>addEventListener("error", (event) => event.preventDefault()); nothing()</script>',
      null,
    ],
  ],
  'script-without-integrity': [
    [
      '<script async src="https://cdn.tallyroot.example/npm/lib/2.1.0/a.js"></script>',
      'src="https://cdn.tallyroot.example/npm/lib/2.1.0/a.js"',
    ],
    ['<script async src="https://cdn.tallyroot.example/npm/lib@2/a.js"></script>', null],
    ['<script async src="/npm/lib@2.1.0/a.js"></script>', null],
    [
      '<script type="text/plain" src="https://cdn.tallyroot.example/npm/lib@2.1.0/a.js"></script>',
      null,
    ],
  ],
  'vector-unnamed': [
    ['<svg role="img" width="20" height="20"></svg>', '<svg role="img" width="20" height="20">'],
    [
      '<a href="/beds"><svg class="s" width="9" height="9"><style>.s { fill: red }</style></svg></a>',
      '<svg class="s" width="9" height="9">',
    ],
    ['<svg role="img" aria-label="Beans" width="9" height="9"></svg>', null],
    ['<a href="/"><svg width="20" height="20"><text y="9">Beds</text></svg></a>', null],
    ['<a href="/" title="Beds"><svg width="9" height="9"></svg></a>', null],
    ['<button><svg aria-hidden="true" width="9" height="9"></svg></button>', null],
    ['<svg width="9" height="9"><g role="img"></g></svg>', null],
  ],
  'player-address-malformed': [
    [`<iframe title="Map" src="https://maps.fernmap.example/embed/x?a=1?b=2"></iframe>`, '?'],
    [`<iframe title="Map" src="https://maps.fernmap.example/embed/x?a=1&b=2"></iframe>`, null],
  ],
  'picture-missing': [
    [
      '<img alt="Beans" src="https://player.loam.example/embed/talk" width="90" height="60">',
      'src="https://player.loam.example/embed/talk"',
    ],
    [
      '<img alt="Beans" srcset="https://static.rootcellar.example/none.png 1x" width="90" height="60">',
      'srcset="https://static.rootcellar.example/none.png 1x"',
    ],
    [
      '<img alt="Bean" width="9" height="9" src="data:image/svg+xml,%3Csvg xmlns=%22http://www.w3.org/2000/svg%22/%3E">',
      null,
    ],
    [`<div style="height: 9000px">Sow</div>${SHOWN(' alt="Beans" loading="lazy"')}`, null],
  ],
  'script-version-floats': [
    [
      '<script async src="https://static.rootcellar.example/npm/bedlist/a.js"></script><script async src="https://static.rootcellar.example/npm/seeds@1.0.2/a.js"></script>',
      'src="https://static.rootcellar.example/npm/bedlist/a.js"',
    ],
    [
      '<script async src="https://static.rootcellar.example/own/a.js"></script><script async src="https://static.rootcellar.example/npm/seeds@1.0.2/a.js"></script>',
      null,
    ],
    [
      '<script async src="https://static.rootcellar.example/bedlist/a.js"></script><script async src="https://static.rootcellar.example/seeds@1.0.2/a.js"></script>',
      'src="https://static.rootcellar.example/bedlist/a.js"',
    ],
    [
      '<script async src="https://static.rootcellar.example/bedlist%40%5E2/a.js"></script>',
      'src="https://static.rootcellar.example/bedlist%40%5E2/a.js"',
    ],
    ['<script async src="https://static.rootcellar.example/bedlist@2.0.0-beta.1"></script>', null],
    [
      '<script async src="https://static.rootcellar.example/bedlist@2.x/"></script>',
      'src="https://static.rootcellar.example/bedlist@2.x/"',
    ],
  ],
};

/** Demands that evidence of a case gives what it is to give. */
export function expectCase(id: string, [code, excerpt]: HardCase, recorded: Recorded): void {
  const found = reportOnce(recorded).findings.filter((finding) => finding.id === id);
  const pieces = found.map(({ where }) => code.slice(where.offset, where.endOffset));
  expect(excerpt === null ? pieces : pieces.slice(0, 1)).toEqual(excerpt === null ? [] : [excerpt]);
}
