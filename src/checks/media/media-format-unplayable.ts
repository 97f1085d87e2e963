import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { MediaFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { nameContainer } from '../../core/measure/container.js';
import { findAnswer, isThere } from '../../core/measure/failed.js';
import { listMediaSources, type MediaSource } from '../../core/measure/media-sources.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  tag: 'video' | 'audio';
  /** What each of its sources is, as far as it is known. */
  kinds: string[];
}

/** HTMLMediaElement.NETWORK_NO_SOURCE. */
const NO_SOURCE = 3;

export default defineCheck({
  id: 'media-format-unplayable',
  subject: 'media',
  level: 'blocker',
  title: 'No browser of this kind plays the file',
  decided:
    'All sources of a video or an audio came, or were passed over by the browser for their `type`, and it plays none of them: it has no source, its file cannot be decoded, or it has pictures and none of them shows. Not where a file is missing, or a web page.',
  standard: 'HTML Living Standard, 4.8.11.5 Loading the media resource',
  needs: ['media', 'traffic'],
  markup: false,
  explains: [
    { findings: ['nothing-rendered'], anywhere: true, fits: () => true },
    { findings: ['autoplay-did-not-start', 'autoplay-without-still', 'media-without-captions'] },
  ],
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.media, (medium): Fact<Data>[] => {
        const sources = listMediaSources(c.markup, medium, c.house.origin);
        const isBlind = showsNothing(medium, render);
        const isLost = isBlind || isUnplayed(medium);
        const kinds = isLost ? listKinds(sources, render) : null;
        if (!kinds || kinds.length === 0) return [];
        const lost = isBlind ? 'its pictures are not shown' : 'no source is supported';
        const happened = medium.error ?? lost;
        const seen = makeSeen(render, { asked: kinds.join(', '), happened });
        return [tell.seen(blameElement(c.markup, medium), { tag: medium.tag, kinds }, seen)];
      }),
    ),
  says: ({ tag, kinds }) => ({
    message: `The ${tag} does not play: the browser cannot show ${kinds.length > 1 ? 'any of its files' : 'its file'} (${joinWords(kinds, 'or')}).`,
    notice: 'Visitors have a player in which nothing plays.',
    cure:
      tag === 'video'
        ? 'Give a file in a format that browsers show, such as MP4 with H.264 and AAC.'
        : 'Give a file in a format that browsers play, such as MP3 or MP4 with AAC.',
  }),
  brief: ({ tag }) =>
    tag === 'video' ? 'a film of no known format' : 'a sound of no known format',
  samples: [
    { tag: 'video', kinds: ['AVI'] },
    { tag: 'audio', kinds: ['a file of no known kind'] },
  ],
  examples: {
    faulty: [
      {
        name: 'a codec that no browser has',
        code: '<video src="https://media.loam.example/unplayable.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a type that is passed over',
        code: '<video controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.avi" type="video/x-msvideo"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'another source is played',
        code: '<video controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.avi" type="video/x-msvideo"><source src="https://media.loam.example/talk.mp4" type="video/mp4"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

/** The browser has given it up. */
function isUnplayed({ readyState, networkState, error }: MediaFact): boolean {
  const cannot = error !== null && /decode|not supported/.test(error);
  return readyState === 0 && (networkState === NO_SOURCE || cannot);
}

/** It is a film with pictures, and of those there is none: its sound may play. */
function showsNothing(
  { tag, readyState, ratio, address }: MediaFact,
  { traffic }: RenderOf<'traffic'>,
): boolean {
  const pictured = findAnswer(address, traffic)?.pictured ?? false;
  return tag === 'video' && readyState > 0 && ratio === null && pictured;
}

/** What its sources are; null where one of them did not come, so that it may be for want of that. */
function listKinds(
  sources: readonly MediaSource[],
  { traffic }: RenderOf<'traffic'>,
): string[] | null {
  const kinds = new Set<string>();
  for (const source of sources) {
    const answer = findAnswer(source.address, traffic);
    const type = source.type?.value.trim() || null;
    // What it does not ask for it has passed over.
    if (answer ? !isThere(answer) : type === null) return null;
    const known = nameContainer(answer?.container ?? null) ?? nameContainer(type);
    kinds.add(known ?? type ?? answer?.contentType ?? 'a file of no known kind');
  }
  return [...kinds];
}
