import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import {
  getAttribute,
  listAround,
  listInside,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { parseAddress } from '../../core/measure/site.js';
import { MEDIA } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';

interface Data {
  tag: string;
  /** The data attribute, and its address. */
  name: string;
  wanted: string;
  /** The address that the browser loads. */
  loaded: string;
}

export default defineCheck({
  id: 'media-sources-disagree',
  subject: 'media',
  level: 'concern',
  title: 'Two addresses are given for one film or sound',
  decided:
    'A data attribute that names the file of a video or an audio (`data-src`, `data-video-url`, `data-mp4` and the like), on it, on a source of its, or on what is around it alone, has another address than those of its sources in the same format. Not where they have none yet (lazy loading).',
  standard: null,
  needs: [],
  markup: true,
  judge: ({ markup, house }): Fact<Data>[] =>
    flatMap(markup.elements, (element) =>
      MEDIA.has(element.name) ? judgeMedium(element, house.origin) : [],
    ),
  says: ({ tag, name, wanted, loaded }) => ({
    message: `\`${name}\` names another file for the ${tag} than its source: ${wanted}, and not ${loaded}.`,
    notice:
      'Which of the two plays depends on whether and when a script puts the one in the place of the other.',
    cure: 'Write the same address in both, or leave only the one that is meant.',
  }),
  brief: ({ tag }) =>
    tag === 'video' ? 'two addresses for one film' : 'two addresses for one sound',
  samples: [
    {
      tag: 'video',
      name: 'data-src',
      wanted: 'https://media.loam.example/talk.mp4',
      loaded: 'https://media.loam.example/rain.mp4',
    },
  ],
  examples: {
    faulty: [
      {
        name: 'one film named, another loaded',
        code: '<video data-src="https://media.loam.example/talk.mp4" controls playsinline style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/rain.mp4" type="video/mp4"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'the same film',
        code: '<video data-src="https://media.loam.example/rain.mp4" controls playsinline style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/rain.mp4" type="video/mp4"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a larger one to take along',
        code: '<video data-download="https://media.loam.example/talk.mp4" src="https://media.loam.example/rain.mp4" controls playsinline style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

const NAMES =
  /^data-((video|audio|media|film|movie|sound)(-?(src|source|url|file|href))?|src|source|url|file|mp4|webm|og[gv]|mp3|m4a)$/;
const FILE = /\.(mp4|m4v|webm|og[gv]|mov|mp3|m4a|aac|wav|flac|m3u8|mpd)$/i;

/** An address of a file, as an attribute has it. */
interface Named {
  bearer: MarkupElement;
  attribute: MarkupAttribute;
  address: string;
  /** Its ending; '' where it has none. */
  format: string;
}

function judgeMedium(medium: MarkupElement, origin: string): Fact<Data>[] {
  const sources = medium.children.filter(({ name }) => name === 'source');
  const loaded = mapPresent([medium, ...sources], (bearer) =>
    readAddress(bearer, getAttribute(bearer, 'src'), origin),
  );
  const bearers = [medium, ...sources, ...listHolders(medium)];
  return flatMap(bearers, (bearer) =>
    mapPresent(bearer.attributes, (attribute): Fact<Data> | null => {
      const named = NAMES.test(attribute.name) ? readAddress(bearer, attribute, origin) : null;
      if (!named || (bearer !== medium && bearer.name !== 'source' && !named.format)) return null;
      const rivals = loaded.filter((one) => isRival(named, one, medium));
      if (rivals.length === 0 || rivals.some(({ address }) => address === named.address))
        return null;
      return tell.markup(atPart(bearer, attribute.name, attribute), {
        tag: medium.name,
        name: attribute.name,
        wanted: named.address,
        loaded: rivals[0]!.address,
      });
    }),
  );
}

/** Of a source its own address alone; else all in the same format: a film may be there in several. */
function isRival(named: Named, loaded: Named, medium: MarkupElement): boolean {
  if (named.bearer.name === 'source') return loaded.bearer === named.bearer;
  const own = loaded.bearer === medium && named.bearer === medium;
  return own || !named.format || !loaded.format || named.format === loaded.format;
}

/** What is around it and no other. */
function listHolders(medium: MarkupElement): MarkupElement[] {
  return listAround(medium.parent).filter(
    (around) => listInside(around).filter(({ name }) => MEDIA.has(name)).length === 1,
  );
}

function readAddress(
  bearer: MarkupElement,
  attribute: MarkupAttribute | null,
  origin: string,
): Named | null {
  const value = attribute?.value.trim() ?? '';
  const looksLike = attribute?.name === 'src' || /[/.]/.test(value);
  const url = value && looksLike ? parseAddress(value, origin) : null;
  if (!attribute || !url || !/^https?:$/.test(url.protocol)) return null;
  url.hash = '';
  return {
    bearer,
    attribute,
    address: url.href,
    format: FILE.exec(url.pathname)?.[1]?.toLowerCase() ?? '',
  };
}
