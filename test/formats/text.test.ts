import { describe, expect, test } from '@jest/globals';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { formatText } from '../../src/formats/text.js';
import {
  makeDocument,
  makeFinding,
  makeRender,
  makeSeen,
  makeSnippet,
} from '../support/document.js';
import { paint } from '../support/paint.js';

function format(
  snippet: Partial<SnippetReport>,
  more: Partial<RunDocument> = {},
  width = 80,
): string {
  const document = makeDocument([makeSnippet(snippet)], more);
  return formatText(document, {
    paint,
    width,
  });
}

describe('the text report', () => {
  test('reads from verdict over grid and findings to what was not seen', () => {
    expect(format({ findings: [makeFinding()] })).toBe(
      `No house file: slot “column” on the neutral page, at 320, 390, 768 and 1280 px.

map.html  CLEAR, 1 concern · fits from 358 px

           320  1280
  column     ◧     ·

  1  ◧ concern  slot-overflow  line 2, column 9
    It reaches beyond its slot.
    2 │ <iframe width="640"></iframe>
      │         ^^^^^^^^^^^
    measured   everywhere: sticks out by 12.3 px, sound track: no
    visitors   It runs over the edge.
    change     Let it shrink.
    corrected  <iframe width="100%"></iframe>

1 snippet: 1 clear.
Seen in Chromium 147.0 alone: not in Firefox or Safari, not signed in, not after
a click.
`,
    );
  });

  test('tells slots with the same widths together, and differing measures apart', () => {
    const places = [
      makeSeen('article', 320, 9),
      makeSeen('aside', 320, 9),
      makeSeen('article', 390, 5),
    ];
    const renders = ['article', 'aside'].flatMap((slot) =>
      [320, 390].map((width) => makeRender(slot, width, null)),
    );
    expect(format({ renders, findings: [makeFinding({ seen: places })] })).toMatch(
      /measured {3}article and aside at 320: sticks out by 9 px, sound track: no;\s+article at 390:/,
    );
  });

  test('says what is from the markup alone, waived, or waived no more', () => {
    const waiver = { reason: 'spring', until: '2026-05-01', by: 'desk', expired: false };
    const text = format({
      findings: [
        makeFinding({ confirmed: false, waiver }),
        makeFinding({ waiver: { ...waiver, expired: true } }),
      ],
    });
    expect(text).toContain('map.html  CLEAR, 1 concern, 1 waived · fits');
    expect(text).toContain('line 2, column 9 · from the markup alone ·\n    waived');
    expect(text).toContain('waiver     until 2026-05-01: spring (desk)');
    expect(text).toContain('waiver     ran out on 2026-05-01, so it counts as none: spring (desk)');
  });

  test('says what was not judged, and why', () => {
    const notJudged = ['slot-overflow', 'page-hangs'].map((id) => ({
      id,
      why: 'the page hangs',
      snippet: 'map.html',
    }));
    const text = format({ verdict: 'unsure', fitsFrom: null }, { notJudged });
    expect(text).toMatch(/map\.html {2}UNSURE\n/);
    expect(text).toContain('Not judged, because the page hangs: slot-overflow, page-hangs.');
  });

  test('keeps to a narrow terminal: grid in rows, words wrapped', () => {
    const renders = [320, 390, 600, 768, 1024, 1280].map((width) =>
      makeRender('column', width, null),
    );
    const text = format({ renders, findings: [makeFinding({ mend: null })] }, {}, 40);
    expect(Math.max(...text.split('\n').map((line) => line.length))).toBeLessThanOrEqual(40);
    expect(text.match(/column {3}/g)!.length).toBeGreaterThan(1);
  });

  test('without a render says so', () => {
    expect(format({ renders: [] }, { engines: [] })).toContain(
      'Nothing was rendered: only the markup was read.',
    );
  });
});
