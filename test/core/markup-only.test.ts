import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';
import { judgeSnippet } from '../../dist/src/core/judge/judge.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { applyEdits } from '../../dist/src/core/mend/apply.js';

const house = getDefaultHouse();

function judge(text: string) {
  return judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence: [],
    baselines: new Map(),
    checks: CHECKS,
    today: '2026-01-01',
    markupOnly: 'only the markup was read',
  }).report;
}

/** Code, and the findings with the pieces they point at. */
const CASES: [string, [string, string][]][] = [
  ['<video src="a.mp4" autoplay></video>', [['autoplay-with-sound', 'autoplay']]],
  ['<video src="a.mp4" AUTOPLAY=""></video>', [['autoplay-with-sound', 'AUTOPLAY=""']]],
  ['<video src="a.mp4" autoplay muted></video>', []],
  [
    '<video src="a.mp4" autoplay="false"></video>',
    [['autoplay-value-ignored', 'autoplay="false"']],
  ],
  ['<audio src="a.mp3" controls=\'no\'></audio>', [['autoplay-value-ignored', "controls='no'"]]],
  [
    '<iframe src="https://maps.fernmap.example/" width="640"></iframe>',
    [['frame-fixed-size', 'width="640"']],
  ],
  [
    '<iframe src="https://maps.fernmap.example/" width=" 640px "></iframe>',
    [['frame-fixed-size', 'width=" 640px "']],
  ],
  [
    '<iframe src="https://maps.fernmap.example/" style="width:640px"></iframe>',
    [['frame-fixed-size', 'width:640px']],
  ],
  [
    '<style>.m { width: 640px }</style><iframe class="m"></iframe>',
    [['frame-fixed-size', 'width: 640px']],
  ],
  ['<style>iframe { max-width: 100% }</style><iframe width="640"></iframe>', []],
  ['<iframe width="100%"></iframe><iframe width="120"></iframe><iframe></iframe>', []],
  [
    '<iframe src="https://player.loam.example/talk" width="120"></iframe>',
    [['frame-fixed-size', 'width="120"']],
  ],
  ['<iframe allow="fullscreen" width="120"></iframe>', [['frame-fixed-size', 'width="120"']]],
  ['<video width="200" src="a.mp4"></video>', [['frame-fixed-size', 'width="200"']]],
  ['<img src="a.png">', [['picture-without-alt', '<img src="a.png">']]],
  [
    '<img src="a.png" alt=""><img src="a.png" title="Beans"><img src="a.png" aria-label="Beans">',
    [],
  ],
  ['<img src="a.png" aria-labelledby="b"><i id="b">Beans</i>', []],
  [
    '<img src="a.png" aria-labelledby="b"><i id="b"></i>',
    [['picture-without-alt', '<img src="a.png" aria-labelledby="b">']],
  ],
  ['<img src="a.png" width="1" height="1"><img role="presentation" src="a.png">', []],
  ['<div hidden><img src="a.png"></div><img src="a.png" style="display: none">', []],
  [
    '<input type="IMAGE" src="a.png" alt="">',
    [['picture-without-alt', '<input type="IMAGE" src="a.png" alt="">']],
  ],
  ['<map><area href="/a"><area></map>', [['picture-without-alt', '<area href="/a">']]],
  ['<b role="img"></b>', [['picture-without-alt', '<b role="img">']]],
  [
    '<script src="http://127.0.0.1:3000/a.js"></script>',
    [['host-private-address', 'src="http://127.0.0.1:3000/a.js"']],
  ],
  ['<script src="//0x7f.1/a.js"></script>', [['host-private-address', 'src="//0x7f.1/a.js"']]],
  ['<a href="http://localhost/">x</a><img alt="x" src="data:image/png;base64,AA">', []],
];

describe('from the markup alone', () => {
  test.each(CASES)('%s', (text, expected) => {
    const { findings } = judge(text);
    const found = findings.map(({ id, where }) => [id, text.slice(where.offset, where.endOffset)]);
    expect(found).toEqual(expected);
    const unsure = findings.filter(({ id }) => id !== 'autoplay-value-ignored');
    expect(unsure.every(({ confirmed, seen }) => !confirmed && seen.length === 0)).toBe(true);
  });
});

/** Code, and what it reads once mended. */
const MENDS: [string, string][] = [
  [
    '<video src="a.mp4" autoplay controls></video>',
    '<video src="a.mp4" autoplay muted controls></video>',
  ],
  ['<video src="a.mp4" loop="no" controls></video>', '<video src="a.mp4" controls></video>'],
  [
    '<iframe width="640" height="360"></iframe>',
    '<iframe style="width: 100%; max-width: 640px; height: auto; aspect-ratio: 640 / 360; box-sizing: border-box" width="640" height="360"></iframe>',
  ],
  [
    '<iframe width="640" style="border: 0;"></iframe>',
    '<iframe width="640" style="border: 0; max-width: 100%; box-sizing: border-box"></iframe>',
  ],
  [
    '<iframe style="width:640px"></iframe>',
    '<iframe style="width: 100%; max-width: 640px; box-sizing: border-box"></iframe>',
  ],
  [
    '<video width="200" src="a.mp4"></video>',
    '<video style="max-width: 100%; height: auto; box-sizing: border-box" width="200" src="a.mp4"></video>',
  ],
];

describe('mended', () => {
  test.each(MENDS)('%s', (text, expected) => {
    const [finding] = judge(text).findings;
    const mended = applyEdits(text, finding!.mend!);
    expect(mended).toBe(expected);
    expect(judge(mended).findings.map(({ id }) => id)).not.toContain(finding!.id);
  });

  test('what a person must word is not mended', () => {
    expect(judge('<img src="a.png">').findings[0]!.mend).toBeNull();
  });
});
