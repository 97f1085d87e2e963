import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { FrameFact, RequestFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, locateAttribute } from '../../core/measure/blame.js';
import { isOfAddress } from '../../core/measure/same-address.js';
import { isWithheld } from '../../core/measure/failed.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  why: string;
  kind: 'header' | 'status' | 'silence' | 'empty' | 'hidden' | 'onward' | 'inside';
}

/** Statuses that say the page is not there, or that its host is broken. */
const GONE = (status: number) => status === 404 || status === 410 || status >= 500;

export default defineCheck({
  id: 'frame-refused',
  subject: 'frames',
  level: 'blocker',
  title: 'A frame’s page refuses to be shown, or is not there',
  decided:
    'The answer forbids framing (X-Frame-Options, or frame-ancestors of its Content-Security-Policy), or is 404, 410 or 5xx, or empty (204 too), or none came; or its document hides itself as a whole, goes on to a page that forbids framing, or has a frame with one in it (then a concern). 401, 403 and 429 are no finding: visitors may see more.',
  standard:
    'HTML Living Standard, 7.3.3 X-Frame-Options; Content Security Policy Level 3, frame-ancestors',
  needs: ['frames', 'traffic'],
  markup: false,
  judge(c): Fact<Data>[] {
    return flatMap(c.renders, (render) =>
      flatMap(render.frames, (frame): Fact<Data>[] => {
        const refusal = getRefusal(frame, render.traffic);
        if (!refusal) return [];
        const blame = blameElement(c.markup, frame);
        const where = locateAttribute(c.markup, blame, 'src', 'data');
        const data = { address: frame.address, ...refusal };
        const seen = makeSeen(render, { answer: refusal.why });
        const level = refusal.kind === 'inside' ? 'concern' : 'blocker';
        return [tell.seen({ ...blame, where }, data, seen, { level })];
      }),
    );
  },
  // Of a frame whose page is not shown nothing measured tells about the code; a host that does not
  // answer from here may answer elsewhere: then the rest counts.
  explains: [
    { findings: ['request-failed'], anywhere: true, fits: isOfAddress },
    { findings: ['frame-wider-than-slot'], when: (_seen, { kind }) => kind !== 'silence' },
    {
      findings: [
        'frame-cuts-content',
        'frame-height-collapsed',
        'frame-mostly-empty',
        'frame-scrolls-sideways',
      ],
      when: (_seen, { kind }) => kind !== 'inside',
    },
  ],
  says({ address, why, kind }) {
    const cures: Record<Data['kind'], string> = {
      header:
        'Use the address that its maker gives for embedding, not that of the page to watch or to share.',
      status: 'Correct the address, or ask its maker for the one that is there now.',
      silence: 'See whether the host’s name is right, and whether it is up.',
      empty: 'Correct the address, or ask its maker for the one that shows something.',
      hidden: 'Ask its maker for the address that is meant for embedding.',
      onward: 'Ask its maker for the address that is meant for embedding.',
      inside: 'Tell its maker, or link to the page instead.',
    };
    return {
      message:
        kind === 'inside'
          ? `A frame in the frame’s page is not shown: ${why}.`
          : `The frame’s page is not shown: ${why} (${address}).`,
      notice: 'Visitors see an empty frame, or an error in it.',
      cure: cures[kind],
    };
  },
  brief: ({ why, kind }) =>
    kind === 'inside'
      ? `a frame in a frame is not shown: ${why}`
      : `a frame’s page is not shown: ${why}`,
  samples: (['header', 'status', 'silence', 'empty', 'hidden', 'onward', 'inside'] as const).map(
    (kind) => ({
      address: 'https://player.loam.example/watch/talk',
      why: '',
      kind,
    }),
  ),
  examples: {
    faulty: [
      {
        name: 'a page to watch instead of one to embed',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/watch/talk" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'a page that is gone',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/gone" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
    sound: [
      {
        name: 'the page to embed',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
  },
});

/** A frame that is no larger is there to count visits, px. */
const COUNTER = 2;

function getRefusal(
  frame: FrameFact,
  traffic: readonly RequestFact[],
): Pick<Data, 'why' | 'kind'> | null {
  if (frame.attributes.srcdoc !== undefined) return findRefused('about:srcdoc', traffic);
  const asked = traffic.filter(
    (request) => request.first === frame.address && /^(document|other)$/.test(request.type),
  );
  // Of a chain of redirects the end counts.
  const last = asked.find(({ status }) => status === null || status < 300 || status >= 400);
  if (!last || isWithheld(last)) return null;
  if (last.forbidsFrames && last.failed) return { kind: 'header', why: describeForbidding(last) };
  if (last.status !== null && GONE(last.status))
    return { kind: 'status', why: `it answers with ${last.status}` };
  // A film or a sound as a whole is asked for once more, by its player.
  const isMedia = /^(audio|video)\//.test(last.contentType ?? '');
  const isEmpty = last.status === 200 && !last.failed && last.unpacked === 0 && !isMedia;
  // What only counts has nothing to show.
  const counts = frame.shown && Math.min(frame.box.width, frame.box.height) <= COUNTER;
  if (!counts && (last.status === 204 || isEmpty))
    return { kind: 'empty', why: 'its answer is empty' };
  // The root of a document that is drawn is as wide as the frame.
  if (!counts && !last.failed && frame.shown && frame.box.width > 0 && frame.inner?.width === 0)
    return { kind: 'hidden', why: 'its document hides itself in a frame' };
  const next = findRefused(last.address, traffic);
  if (next) return next;
  const silent = last.failed && last.failed !== 'cancelled' && last.status === null;
  return silent ? { kind: 'silence', why: 'its host does not answer' } : null;
}

function describeForbidding({ forbidsFrames }: RequestFact): string {
  return `its host forbids it (${forbidsFrames})`;
}

/** What a frame's document goes on to, or shows in a frame of its own, and is forbidden to be framed. */
function findRefused(
  address: string,
  traffic: readonly RequestFact[],
): Pick<Data, 'why' | 'kind'> | null {
  const met = new Set([address]);
  // Documents are told of in the order in which they were asked for.
  for (const one of traffic) {
    if (!one.inFrame || one.by === null || !met.has(one.by)) continue;
    if (!/^(document|other)$/.test(one.type)) continue;
    if (one.forbidsFrames && one.failed && !isWithheld(one)) {
      const why = describeForbidding(one);
      return one.from
        ? { kind: 'onward', why: `it goes on to ${one.address}, and ${why}` }
        : { kind: 'inside', why: `${one.address}, ${why}` };
    }
    met.add(one.address);
  }
  return null;
}
