import { defineCheck, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { atSnippet } from '../../core/measure/blame.js';
import {
  describeBytes,
  findHeaviestTag,
  findTooHeavy,
  sumBytes,
} from '../../core/measure/bytes.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { formatBytes } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';

interface Data {
  limit: number;
  wire: number;
  /** What that comes to in a month, and what the house has; null where it does not say. */
  monthly: { bytes: number; views: number; transfer: number | null } | null;
}

export default defineCheck({
  id: 'media-over-limit',
  subject: 'media',
  level: 'concern',
  title: 'Films and sounds weigh more than the house allows',
  decided:
    'The bytes on the wire of all films and sounds that one view loads are over the limit `mediaBytes`, or, times the views of a month (`monthly.views`), over the house’s allowance (`monthly.transfer`).',
  standard: null,
  needs: ['traffic'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data>[] {
    const { monthly } = house;
    const { mediaBytes } = house.limits;
    const share = monthly?.transfer === undefined ? Infinity : monthly.transfer / monthly.views;
    const limit = Math.min(mediaBytes, share);
    const found = findTooHeavy(renders, limit, listFilms);
    if (!found) return [];
    const wire = sumBytes(found.requests, 'wire');
    const month = monthly && {
      ...{ bytes: wire * monthly.views, views: monthly.views },
      transfer: monthly.transfer ?? null,
    };
    return [
      tell.seen(
        atSnippet(
          'media',
          findHeaviestTag(markup, found.requests, house.origin) ?? getFirst(markup),
        ),
        { limit: mediaBytes, wire, monthly: month ?? null },
        found.seen,
      ),
    ];
  },
  says({ limit, wire, monthly }) {
    const month = monthly
      ? ` With ${monthly.views} views a month that is ${formatBytes(monthly.bytes)}${monthly.transfer === null ? '' : ` of ${formatBytes(monthly.transfer)}`}.`
      : '';
    return {
      message: `Each view loads ${formatBytes(wire)} of film and sound; the house allows ${formatBytes(limit)}.${month}`,
      notice: 'Visitors on slow or dear lines wait and pay for what many never watch.',
      cure: 'Load it when it is asked for (`preload="none"` without autoplay), or give a smaller file.',
    };
  },
  measures: describeBytes,
  brief: ({ wire, limit }) => `films of ${formatBytes(wire)}, ${formatBytes(limit)} allowed`,
  samples: [{ limit: 0, wire: 0, monthly: null }],
  examples: {
    faulty: [
      {
        name: 'a film heavier than the house allows',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline preload="auto" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
        under: { limits: { mediaBytes: '20kB' } },
      },
      {
        name: 'too many views for it',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline preload="auto" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
        under: { monthly: { views: 40_000, transfer: '500MB' } },
      },
    ],
    sound: [
      {
        name: 'a film that few views ask for',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline preload="auto" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
        under: { monthly: { views: 400, transfer: '500MB' } },
      },
      {
        name: 'loaded only when it is asked for',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline preload="none" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
        under: { limits: { mediaBytes: '20kB' } },
      },
    ],
  },
});

function listFilms({ traffic }: RenderOf<'traffic'>): RequestFact[] {
  return traffic.filter(({ type, container }) => type === 'film' || container !== null);
}

function getFirst({ elements }: Markup) {
  const element = elements.find(({ name }) => /^(video|audio|iframe)$/.test(name)) ?? elements[0];
  return element ? getTagSpan(element) : { offset: 0, endOffset: 0 };
}
