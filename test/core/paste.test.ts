import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';

function judge(text: string) {
  return judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house: getDefaultHouse(),
    evidence: [],
    baselines: new Map(),
    checks: CHECKS.filter(({ id }) => !/^picture-(size-unset|never-loaded)$/.test(id)),
    today: '2026-01-01',
    markupOnly: 'only the markup was read',
  }).report;
}

const NBSP = '\u00a0';

/** What is pasted, all that is to be found as `finding [piece]`, and what it reads corrected; null: as before. */
const CASES: [text: string, found: string[], mended: string | null][] = [
  [
    '<iframe src=“https://maps.fernmap.example/” width=“640” title=“Map of beds”></iframe>',
    ['curly-quotes [src=“https://maps.fernmap.example/”]'],
    '<iframe src="https://maps.fernmap.example/" width="640" title="Map of beds"></iframe>',
  ],
  [
    '<img src=”a.png” alt=”Three beans”>',
    ['curly-quotes [src=”a.png”]'],
    '<img src="a.png" alt="Three beans">',
  ],
  ['<a href=‘/a’>x</a>', ['curly-quotes [href=‘/a’]'], "<a href='/a'>x</a>"],
  [
    `<img src="a.png"${NBSP}alt="Beans">`,
    [`curly-quotes [${NBSP}alt]`],
    '<img src="a.png" alt="Beans">',
  ],
  // What is added at the end stands before the break that ends the code, on a line of its own where there are several.
  ['<div>Sow', ['tag-left-open [<div>]'], '<div>Sow</div>'],
  ['<div>Sow\n', ['tag-left-open [<div>]'], '<div>Sow</div>\n'],
  ['<div>\r\nSow\r\n\r\n', ['tag-left-open [<div>]'], '<div>\r\nSow\r\n</div>\r\n\r\n'],
  ['<p>a</p>\n<!-- sow\n', ['tag-left-open [<!--]'], '<p>a</p>\n<!-- sow\n-->\n'],
  ['<p title="Sow ‘em” well">He said “hi” = “x”</p>', [], null],
  ['<script>var a = “x”;</script><p title=Sow’s>x</p>', [], null],
  [
    '&lt;iframe src="https://maps.fernmap.example/"&gt;&lt;/iframe&gt; below',
    ['code-shows-as-text [&lt;iframe]'],
    '<iframe src="https://maps.fernmap.example/"></iframe> below',
  ],
  [
    '&amp;lt;p class=&amp;quot;a&amp;quot;&amp;gt;x&amp;lt;/p&amp;gt;',
    ['code-shows-as-text [&amp;lt;p]'],
    '<p class="a">x</p>',
  ],
  [
    '<p>&lt;script&gt;a()&lt;/script&gt;</p>',
    ['code-shows-as-text [&lt;script&gt;]'],
    '<p><script>a()</script></p>',
  ],
  ['<p>The &lt;script&gt; element, &lt;b&gt; and 3 &lt; 5</p>', [], null],
  [
    '<pre>&lt;a href="x"&gt;</pre><!-- &lt;a href="x"&gt; --><p title="&lt;a href=x&gt;">x</p>',
    [],
    null,
  ],
  ['[iframe src="x.html"][/iframe]', ['code-shows-as-text [[iframe src="x.html"]]'], null],
  [
    ' https://player.loam.example/watch/talk\n',
    ['address-instead-of-code [https://player.loam.example/watch/talk]'],
    null,
  ],
  ['www.fernmap.example/map', ['address-instead-of-code [www.fernmap.example/map]'], null],
  ['https://player.loam.example/ is the player', [], null],
  ['<ifram src="a"></ifram>', ['element-misspelt [ifram]'], '<iframe src="a"></iframe>'],
  [
    '<sapn>x</sapn><foo>x</foo><my-box>x</my-box><g:plus>x</g:plus>',
    ['element-misspelt [sapn]'],
    '<span>x</span><foo>x</foo><my-box>x</my-box><g:plus>x</g:plus>',
  ],
  ['<blcokqoute>x</blcokqoute>', ['element-misspelt [blcokqoute]'], '<blockquote>x</blockquote>'],
  [
    '<svg viewBox="0 0 9 9"><clipPath></clipPath></svg><math><mfrac></mfrac></math><samp>x</samp>',
    [],
    null,
  ],
  [
    '<div data-key="YOUR_KEY" id="{{id}}">x</div>',
    ['placeholder-left-in [data-key="YOUR_KEY"]', 'placeholder-left-in [id="{{id}}"]'],
    null,
  ],
  ['<script>init("INSERT-KEY")</script><p>x</p>', ['placeholder-left-in ["INSERT-KEY"]'], null],
  [
    '<script>t = "{{name}}"</script><p class="{{x}}" :id="{{y}}">x</p><a href="/your-garden">x</a>',
    [],
    null,
  ],
  ['<img src="" alt="Beans">', ['placeholder-left-in [src=""]'], null],
  ['<img src="" srcset="a.png 2x" alt="Beans"><img src="" data-src="a.png" alt="Peas">', [], null],
  ['<style>p, .a { color: red }</style><p>x</p>', ['style-reaches-outside [p]'], null],
  [
    '<style>@media (width < 9px) { body > * { margin: 0 } } :root { --a: 0 }</style><p>x</p>',
    ['style-reaches-outside [body > *]'],
    null,
  ],
  ['<style>:root { --a: 0; color: red }</style><p>x</p>', ['style-reaches-outside [:root]'], null],
  ['<style>@scope (.a) { p { margin: 0 } }</style><p class="a">x</p>', [], null],
  ['<style>@scope { p { margin: 0 } }</style><p>x</p>', [], null],
  ['<style>@scope (main) { p { margin: 0 } }</style><p>x</p>', ['style-reaches-outside [p]'], null],
  [
    '<style>.a p, #b, a[href], p:not(.a), my-box p { margin: 0 } @keyframes x { from { top: 0 } }</style><p>x</p>',
    [],
    null,
  ],
  [
    '<style>.a {} @import "x.css"; @import "y.css";</style><p>x</p>',
    ['style-import-too-late [@import "x.css";]', 'style-import-too-late [@import "y.css";]'],
    null,
  ],
  ['<style>@charset "utf-8"; @layer a; @import "x.css"; .a {}</style><p>x</p>', [], null],
  ['<h3>Beans</h3>', ['heading-out-of-step [<h3>]'], null],
  ['<h2>Beans</h2><h4>Peas</h4><h5>Chard</h5>', ['heading-out-of-step [<h4>]'], null],
  ['<h2>Beans</h2><h3>Peas</h3><h2>Chard</h2><h6 role="presentation">x</h6>', [], null],
  [
    '<video controls poster="a.png"><source src="a.mp4"><track src="a.vtt"></video><video controls poster="a.png" src="a.mp4"><track src="b.vtt"></video>',
    ['pasted-twice [src="a.mp4"]'],
    null,
  ],
  ['<script async src="/a.js"></script><script async src="/b.js"></script><p>x</p>', [], null],
  ['```html\n<p>Sow</p>\n```\n', ['code-mangled [```html]'], '<p>Sow</p>\n'],
  ['<p>Sow</p>\n```\nnot around it\n```\n', [], null],
  [
    '<p>x</p><script>if (a &lt; b &amp;&amp; c) d();</script>',
    ['code-mangled [&lt;]'],
    '<p>x</p><script>if (a < b && c) d();</script>',
  ],
  [
    '<p>x</p><script>a = "&amp;<br>";</script><script type="application/json"><br></script>',
    [],
    null,
  ],
  ['<p>x</p><script>this is <br> no script</script>', [], null],
  [
    '<style>.a { top: 0 }<br>.b { left: 0 }</style><p>x</p>',
    ['code-mangled [<br>]'],
    '<style>.a { top: 0 }.b { left: 0 }</style><p>x</p>',
  ],
  ['<style>.a::after { content: "<br>&gt;" } /* <p> */</style><p>x</p>', [], null],
  [
    '<a href="/?a=1&amp;amp;b=2">x</a>',
    ['code-mangled [href="/?a=1&amp;amp;b=2"]'],
    '<a href="/?a=1&amp;b=2">x</a>',
  ],
  ['<a href="/?a=1&amp;b=2" title="&amp;amp;">x</a>', [], null],
  [
    '<!DOCTYPE html><HTML lang="en"><head></head><body class="a"><p>x</p></body></html>',
    [
      'page-settings-changed [<HTML lang="en">]',
      'page-settings-changed [<body class="a">]',
      'nested-document [<!DOCTYPE html>]',
    ],
    '<p>x</p>',
  ],
  [
    '<!-- <body> --><header>x</header><script>a = "<body>"</script><textarea aria-label="x"><html></textarea>',
    [],
    null,
  ],
];

/** The same of what the parser drops or hides, and of what is not the snippet's to set. */
const MORE: typeof CASES = [
  [
    '<img src="a.png alt="Beans" width="40">',
    ['content-swallowed [src="a.png alt="Beans"]'],
    '<img src="a.png" alt="Beans" width="40">',
  ],
  [
    '<a href="/list>Seed list</a> <a href="/map">Map</a>',
    ['content-swallowed [href="/list>Seed list</a> <a href="/map"]'],
    '<a href="/list">Seed list</a> <a href="/map">Map</a>',
  ],
  [
    `<img src='a.png alt='Beans'>`,
    [`content-swallowed [src='a.png alt='Beans']`],
    `<img src='a.png' alt='Beans'>`,
  ],
  ['<p title="a = b" id="c" data-x="y=">x</p>', [], null],
  [
    '<img src="a.png alt="Beans on a rack" width="9">',
    ['content-swallowed [src="a.png alt="Beans on a rack"]'],
    '<img src="a.png" alt="Beans on a rack" width="9">',
  ],
  ['<p title="a =" hidden class="x">x</p>', [], null],
  [
    '<div><p>x</p></div <p>y</p>',
    ['content-swallowed [</div <p>]'],
    '<div><p>x</p></div> <p>y</p>',
  ],
  ['<div class="x"<b>y</b></div>', ['content-swallowed [<div class="x"<b>]'], null],
  ['<p title="</div <p>">x</p><!-- </div <p> -->', [], null],
  ['<iframe title="A" style="border: 0" srcdoc="<html><body>x</body></html>"></iframe>', [], null],
  ['<p>Dear [NAME HERE]</p>', ['placeholder-left-in [[NAME HERE]]'], null],
  ['TODO: opening hours', ['placeholder-left-in [TODO:]'], null],
  ['<p>Lorem ipsum dolor</p>', ['placeholder-left-in [Lorem ipsum dolor]'], null],
  ['<p>%%FIRST_NAME%%, come!</p>', ['placeholder-left-in [%%FIRST_NAME%%]'], null],
  ['<p>[SOLD OUT] [1] [2026] {} my TODO list, INSERT coin</p>', [], null],
  ['<pre>{{ day }}</pre><template>{{ day }}</template><p hidden>{{ day }}</p>', [], null],
  [
    '<img src="a.png" alt="[INSERT ALT TEXT]">',
    ['placeholder-left-in [alt="[INSERT ALT TEXT]"]'],
    null,
  ],
  ['<p data-words="ENTER THE GLASSHOUSE" data-more="YOUR GARDEN">x</p>', [], null],
  [
    '<img alt="x" src="PUT%20YOUR%20IMAGE%20URL">',
    ['placeholder-left-in [src="PUT%20YOUR%20IMAGE%20URL"]'],
    null,
  ],
  ['<a href="INSERT LINK HERE">x</a>', ['placeholder-left-in [href="INSERT LINK HERE"]'], null],
  [
    '<div class="a"><p class="b">x</p><div class="c">1</div><div class="c">2<div class="c">3</div></div>',
    ['tag-left-open [<div class="a">]'],
    '<div class="a"><p class="b">x</p><div class="c">1</div><div class="c">2</div><div class="c">3</div></div>',
  ],
  ['<p>x</p><!-- note -- ><p>y</p>', ['tag-left-open [<!--]'], '<p>x</p><!-- note --><p>y</p>'],
  ['<table></table><td>x</td>', ['content-swallowed [<td>]'], null],
  ['<table><td>x<td>y</table><template><tr></tr></template><p title="<tr>">x</p>', [], null],
  ['<!-- <p>x</p> <!-- a --> <p>y</p>', ['content-swallowed [<!--]'], null],
  ['<!-- a --><p>x</p><!-- <b> --><script>a = "<!-- <b> <!-- c -->"</script>', [], null],
  [
    '<script>a = "<b></script>"</script>',
    ['content-swallowed [</script>]'],
    '<script>a = "<b><\\/script>"</script>',
  ],
  ['<script>a = "</" + "script>"</script><script>b = 1</script>', [], null],
  ['<base href="/x"><p>x</p>', ['page-settings-changed [<base href="/x">]'], '<p>x</p>'],
  ['<title>Seeds</title>', ['page-settings-changed [<title>]'], null],
  ['<meta name="constructor" content="x">', [], null],
  [
    '<link rel="icon canonical" href="/x">',
    ['page-settings-changed [<link rel="icon canonical" href="/x">]'],
    null,
  ],
  [
    '<META NAME="Robots" content="noindex">',
    ['page-settings-changed [<META NAME="Robots" content="noindex">]'],
    null,
  ],
  [
    '<meta http-equiv="refresh" content="5">',
    ['page-taken-over [<meta http-equiv="refresh" content="5">]'],
    null,
  ],
  [
    '<svg role="img" aria-label="x" viewBox="0 0 9 9"><title>Bean</title></svg><p itemscope><meta itemprop="name" content="x"></p><link rel="stylesheet" href="a.css">',
    [],
    null,
  ],
  [
    '<form action="/a"><form action="/b"></form></form>',
    ['form-inside-form [<form action="/b">]'],
    null,
  ],
  [
    '<form action="/a"><!-- <form> --><p title="<form>">x</p></form><form action="/b"></form>',
    [],
    null,
  ],
  ['<h1>A</h1><h1 hidden>B</h1>', ['extra-page-heading [<h1>]'], null],
  [
    '<p id="a">x</p><b id="a">y</b><i id="A">z</i><u id=""></u><u id=""></u>',
    ['id-used-twice [id="a"]'],
    null,
  ],
  [
    '<a href="#">x</a><a href="#a">y</a><a href="#" onclick="go(event); return false">z</a>',
    ['jump-to-top-link [href="#"]'],
    null,
  ],
  ['<a href=" # ">x</a><a>y</a><a href="#" hidden>z</a>', ['jump-to-top-link [href=" # "]'], null],
  [
    '<img alt="Bean" src="file:///a.png"><a href="C:\\x.pdf">x</a><a href="\\\\desk\\x">y</a>',
    [
      'address-works-only-here [src="file:///a.png"]',
      'address-works-only-here [href="C:\\x.pdf"]',
      'address-works-only-here [href="\\\\desk\\x"]',
    ],
    null,
  ],
  [
    '<img alt="Bean" src="blob:https://a.example/1">',
    ['address-works-only-here [src="blob:https://a.example/1"]'],
    null,
  ],
  ['<img alt="Bean" src="cid:part1">', ['address-works-only-here [src="cid:part1"]'], null],
  [
    '<form action="//127.0.0.1:80/x"></form>',
    ['address-works-only-here [action="//127.0.0.1:80/x"]'],
    null,
  ],
  [
    '<img alt="Bean" src="https://a.example/x?Expires=1700000000&Signature=b">',
    ['address-works-only-here [src="https://a.example/x?Expires=1700000000&Signature=b"]'],
    null,
  ],
  [
    '<img alt="Bean" src="https://a.example/x?Expires=1900000000&Signature=b"><a href="https://localhost.example/?Expires=1700000000&sig=a">y</a>',
    [],
    null,
  ],
  [
    '<center class="a">x</center>',
    ['obsolete-markup [<center class="a">]'],
    '<div style="text-align: center" class="a">x</div>',
  ],
  [
    '<strike>x</strike><tt>y</tt>',
    ['obsolete-markup [<strike>]', 'obsolete-markup [<tt>]'],
    '<s>x</s><code>y</code>',
  ],
  [
    '<p align="center">x</p>',
    ['obsolete-markup [align="center"]'],
    '<p style="text-align: center">x</p>',
  ],
  [
    '<p align="center" style="text-align: left">x</p>',
    ['obsolete-markup [align="center"]'],
    '<p style="text-align: left">x</p>',
  ],
  ['<br clear="all">', ['obsolete-markup [clear="all"]'], null],
  [
    '<iframe title="Map" src="/x" style="border: 0" frameborder="0" scrolling="no"></iframe>',
    ['obsolete-markup [frameborder="0"]', 'obsolete-markup [scrolling="no"]'],
    '<iframe title="Map" src="/x" style="border: 0" scrolling="no"></iframe>',
  ],
  [
    '<table border="1"><tr><td width="40" colspan="2">x</td></tr></table>',
    ['obsolete-markup [width="40"]'],
    null,
  ],
  ['<font>x</font>', ['obsolete-markup [<font>]'], null],
  [
    '<svg role="img" aria-label="x" viewBox="0 0 9 9"><font></font></svg><img alt="Bean" src="a.png" width="9" height="9" border="0"><a id="constructor" name="x">x</a>',
    [],
    null,
  ],
];

describe('what was pasted', () => {
  test.each([...CASES, ...MORE])('%s', (text, found, mended) => {
    const report = judge(text);
    const told = report.findings.map(
      ({ id, where }) => `${id} [${text.slice(where.offset, where.endOffset)}]`,
    );
    expect(told).toEqual(found);
    if (mended !== null) expect(report.mended).toBe(mended);
  });

  test('each correction alone leaves none of its kind at its place', () => {
    for (const [text] of [...CASES, ...MORE])
      for (const { id, mend } of judge(text).findings) {
        if (!mend) continue;
        const count = (code: string) => judge(code).findings.filter((one) => one.id === id).length;
        expect([text, count(applyEdits(text, mend))]).toEqual([text, count(text) - 1]);
      }
  });

  test('a tag left open explains what its content makes wide, not a width of its own', () => {
    const { explains } = CHECKS.find(({ id }) => id === 'tag-left-open')!;
    const rule = explains!.find(({ findings }) => findings.includes('slot-overflow'))!;
    const fits = (offset: number, byContent: boolean) =>
      rule.fits!(
        {
          where: { offset, endOffset: offset + 3 },
          culprit: { at: 'element', offset },
          byContent,
          data: null,
          seen: [],
        },
        { kind: 'element', name: 'b', span: { offset: 0, endOffset: 3 }, open: [0, 3] },
      );
    expect([fits(0, true), fits(3, true), fits(6, true), fits(0, false)]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });

  test('a picture in a link that has other words is told as a picture', () => {
    const say = (text: string) => judge(text).findings[0]!.message;
    expect(say('<a href="/a"><img src="a.png"></a>')).toContain('in a link');
    for (const more of ['Beans', '<img src="b.png" alt="Beans">'])
      expect(say(`<a href="/a"><img src="a.png">${more}</a>`)).not.toContain('link');
  });

  test('a script that writes, or that code behind it may need, is not put off', () => {
    const check = CHECKS.find(({ id }) => id === 'script-blocks-page')!;
    const bound = (code: string, writers: string[]) => {
      const address = 'https://tally.example/a.js';
      const markup = readMarkup(code.replace('A', `<script src="${address}"></script>`));
      const render = { traffic: [{ first: address, waited: 3 }], scripts: { writers }, at: {} };
      const house = getDefaultHouse();
      const [fact] = check.judge({
        snippet: { name: '', path: null, text: '' },
        markup,
        house,
        renders: [render],
      } as never);
      return [
        (fact!.data as { bound: string | null }).bound,
        check.mend!(fact!.data, fact!, markup) === null,
      ];
    };
    expect(bound('A', [])).toEqual([null, false]);
    expect(bound('A', ['https://tally.example/a.js'])).toEqual(['writes', true]);
    expect(bound('A<script>b()</script>', [])).toEqual(['needed', true]);
    expect(bound('<script>b()</script>A', [])).toEqual([null, false]);
  });
});
