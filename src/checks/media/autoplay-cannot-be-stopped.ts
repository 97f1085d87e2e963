import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getAttribute, type Markup } from '../../core/markup/markup.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { atAttribute, atTag, blameElement } from '../../core/measure/blame.js';
import { playsOn } from '../../core/measure/plays.js';
import { addAttribute } from '../../core/mend/attribute.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';
import { formatWidths } from '../../core/words/list.js';

interface Data {
  loop: boolean;
  /** Seconds; null where it is not known, or has no end. */
  duration: number | null;
}

export default defineCheck({
  id: 'autoplay-cannot-be-stopped',
  subject: 'media',
  level: 'concern',
  title: 'A film plays by itself and cannot be stopped',
  decided:
    'A video that loops or lasts over 5 s starts by itself, has no controls, and is paused neither by a click on it nor by one on any button of the snippet: where there is code, each is tried.',
  standard: 'WCAG 2.2, 2.2.2 Pause, Stop, Hide',
  needs: ['media', 'handling'],
  markup: true,
  judge: judgeRenders,
  unrendered: ({ markup }) => tellLoops(markup),
  says({ loop, duration }, { seen }) {
    const long = loop || duration === null ? 'without end' : `for ${Math.round(duration)} s`;
    const where = seen.length > 0 ? ` (seen ${formatWidths(seen)})` : '';
    return {
      message: `The video plays by itself, ${long}, and nothing stops it${where}.`,
      notice: 'People whom moving pictures distract cannot read what stands beside it.',
      cure: 'Add `controls`, or a button that pauses it.',
    };
  },
  mend: (_data, { culprit }) => addAttribute(culprit, 'controls'),
  samples: [{ loop: true, duration: 4 }],
  examples: {
    faulty: [
      {
        name: 'rain without end and without controls',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted loop playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
        under: { levels: { 'autoplay-despite-reduced-motion': 'off' } },
      },
    ],
    sound: [
      {
        name: 'controls of its own',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'over in four seconds',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

function judgeRenders(c: Case<'media' | 'handling'>): Fact<Data>[] {
  const stopped = new Set(
    flatMap(c.renders, ({ handling }) => handling.stopped.map(getElementKey)),
  );
  return flatMap(c.renders, (render) =>
    render.media
      .filter((one) => playsOn(one) && !one.controls && !stopped.has(getElementKey(one)))
      .map((one) => {
        const { loop, duration } = one;
        const blame = blameElement(c.markup, one);
        return tell.seen(
          atAttribute(c.markup, blame, 'autoplay', 'loop'),
          { loop, duration },
          makeSeen(render, { loop, duration }),
        );
      }),
  );
}

/** What has code may have a button that code makes, or stop it by itself. */
function tellLoops(markup: Markup): MarkupFact<Data>[] {
  if (markup.elements.some((one) => isScript(one) || hasHandler(one))) return [];
  return mapPresent(markup.elements, (element): MarkupFact<Data> | null => {
    const has = (name: string) => getAttribute(element, name) !== null;
    const autoplay = element.name === 'video' ? getAttribute(element, 'autoplay') : null;
    if (!autoplay || !has('muted') || !has('loop') || has('controls')) return null;
    if (isHidden(markup, element)) return null;
    return tell.markup(atTag(element, autoplay), { loop: true, duration: null });
  });
}
