import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { House } from '../../core/house/house.js';
import { flatMap } from '../../core/lists.js';
import { atAttribute, atPart, blameElement, getBlamed } from '../../core/measure/blame.js';
import { findLoudAddress } from '../../core/measure/loud-address.js';
import {
  getForeignAddress,
  isAllowed,
  listAsked,
  type Feature,
} from '../../core/measure/permissions.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  features: Feature[];
  /** How its address asks for them; none where its page does. */
  asked: string[];
  /** What `allow` says already. */
  allow: string;
  /** It is to start with its sound on, which is to be cured first: then it needs no permission. */
  loud: boolean;
}

type Measured = { refused: string };

export default defineCheck({
  id: 'frame-permission-missing',
  subject: 'frames',
  level: 'concern',
  title: 'A frame asks for something that it is not allowed',
  decided:
    'A frame of another origin asks for autoplay, fullscreen, motion sensors or the like, in its address or by what its page did and the browser refused, and its `allow` does not give it that.',
  standard: 'Permissions Policy, 5.2; HTML Living Standard, 4.8.5 The iframe element (allow)',
  needs: ['frames'],
  markup: 'part',
  judge(c): Fact<Data, Measured>[] {
    const { markup, house, renders } = c;
    const byMarkup = flatMap(markup.elements, (element): Fact<Data, Measured>[] => {
      const address = element.name === 'iframe' ? getForeignAddress(element, house.origin) : null;
      const lacking = address
        ? listAsked(address).filter((one) => !isAllowed(element, one.feature))
        : [];
      if (lacking.length === 0) return [];
      const features = [...new Set(lacking.map(({ feature }) => feature))];
      const asked = lacking.map(({ parameter }) => parameter);
      return [makeFact(element, features, asked, isLoud(element, house))];
    });
    const known = new Set(byMarkup.map(({ where }) => where.offset));
    const byUse = flatMap(renders, (render) =>
      flatMap(render.frames, (frame): Fact<Data, Measured>[] => {
        const blame = blameElement(markup, frame);
        const element = getBlamed(markup, blame);
        const features = (frame.inner?.refused ?? []).filter(
          (feature) => !element || !isAllowed(element, feature),
        );
        if (features.length === 0) return [];
        const seen = [makeSeen(render, { refused: features.join(', ') })];
        if (element) {
          const fact = makeFact(element, features, [], isLoud(element, house));
          return known.has(fact.where.offset) ? [] : [{ ...fact, seen }];
        }
        const data = { features, asked: [], allow: frame.attributes.allow ?? '', loud: false };
        return [tell.seen(atAttribute(markup, blame, 'allow'), data, seen, { group: '' })];
      }),
    );
    return [...byMarkup, ...byUse];
  },
  says({ features, asked, allow, loud }) {
    const list = joinWords(features);
    const how =
      asked.length > 0
        ? `Its address asks for ${list} (${joinWords(asked)})`
        : `Its page asks for ${list}`;
    return {
      message: `${how}, which the frame is not allowed.`,
      notice: `The browser refuses it: ${joinWords(features.map((one) => NOTICES[one] ?? `${one} does not work`))}.`,
      cure: loud
        ? `Where it is muted, allow it: \`allow="${joinAllow(allow, features)}"\`.`
        : `Allow it: \`allow="${joinAllow(allow, features)}"\`. Or do without.`,
    };
  },
  mend({ features, allow, loud }, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    if (!element) return null;
    // What is not to start by itself needs no leave to do so.
    const wanted = features.filter((one) => !loud || one !== 'autoplay');
    if (wanted.length === 0) return null;
    const value = joinAllow(allow, wanted);
    return [{ do: 'set-attribute', element: element.offset, name: 'allow', value }];
  },
  measures: ({ refused }) => `refused ${refused}`,
  brief: ({ features }) => `a frame without ${joinWords(features)}`,
  samples: [
    { features: ['autoplay'], asked: ['autoplay=1'], allow: '', loud: false },
    { features: ['autoplay'], asked: ['autoplay=1'], allow: '', loud: true },
    { features: ['gyroscope'], asked: [], allow: 'fullscreen', loud: false },
  ],
  examples: {
    faulty: [
      {
        name: 'a player that is to start by itself',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=1&amp;quiet=1" allowfullscreen style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
    sound: [
      {
        name: 'the same, allowed',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=1&amp;quiet=1" allow="autoplay; fullscreen" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'a player that asks for nothing',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=0" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
  },
});

const NOTICES: Record<Feature, string> = {
  autoplay: 'what is to play by itself does not',
  fullscreen: 'the button for the whole screen does nothing',
  gyroscope: 'turning the phone does nothing',
  accelerometer: 'moving the phone does nothing',
  geolocation: 'it cannot find where the visitor is',
};

/** Where the house knows how to mute it, it is muted, and may start. */
function isLoud(element: MarkupElement, house: House): boolean {
  const loud = findLoudAddress(element, house);
  return loud !== null && loud.mute === null;
}

function makeFact(
  element: MarkupElement,
  features: Feature[],
  asked: string[],
  loud: boolean,
): Fact<Data, Measured> {
  const attribute =
    getAttribute(element, 'allow') ?? (asked.length > 0 ? getAttribute(element, 'src') : null);
  return tell.markup(
    atPart(element, 'allow', attribute ?? getTagSpan(element)),
    { features, asked, allow: getValue(element, 'allow') ?? '', loud },
    { group: '' },
  );
}

/** What it says, with these given as well. */
function joinAllow(allow: string, features: readonly Feature[]): string {
  const kept = allow
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part && !features.includes(part.split(/\s+/)[0]!.toLowerCase()));
  return [...kept, ...features].join('; ');
}
