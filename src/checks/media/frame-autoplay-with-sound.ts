import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import type { House } from '../../core/house/house.js';
import { getFrameSource } from '../../core/markup/embeds.js';
import { matchesHost, parseAddress } from '../../core/measure/site.js';

interface Data {
  host: string;
  /** The player's own mute parameter, where the house knows it: `quiet=1`. */
  mute: string | null;
  /** The parameter that asks for autoplay, as written: `autoplay=1`. */
  asked: string;
}

const AUTOPLAY = /^auto_?(play|start)$/i;
const ON = /^(|1|true|yes|on)$/i;
/** Parameters by which players are muted, where the house says nothing of the player. */
const MUTES: [RegExp, RegExp][] = [
  [/^(mute|muted|silent|quiet)$/i, /^(|1|true|yes|on)$/i],
  [/^(sound|audio|volume|unmuted?)$/i, /^(0|0\.0+|false|no|off)$/i],
];

export default defineCheck({
  id: 'frame-autoplay-with-sound',
  subject: 'media',
  level: 'blocker',
  title: 'A player in a frame is to start by itself with its sound on',
  decided:
    'The address of a frame asks for autoplay and has no parameter that mutes; which one that is for a player, the house may say under `players`.',
  standard: 'WCAG 2.2, 1.4.2 Audio Control',
  needs: [],
  markup: true,
  // Its document does as its address says.
  explains: [{ findings: ['autoplay-with-sound'], anywhere: true }],
  judge(c): Fact<Data>[] {
    return flatMap(c.markup.elements, (element): Fact<Data>[] => {
      const source = getFrameSource(element);
      const url = source && parseAddress(source.value.trim(), c.house.origin);
      if (!source || !url) return [];
      const parameters = [
        ...url.searchParams,
        ...new URLSearchParams(url.hash.replace(/^#\??/, '')),
      ];
      const asked = parameters.find(([name, value]) => AUTOPLAY.test(name) && ON.test(value));
      const own = getOwnMute(c.house, url.hostname);
      if (!asked || isMuted(parameters, own)) return [];
      const where = { offset: source.offset, endOffset: source.endOffset };
      const mute =
        own &&
        Object.entries(own)
          .map(([name, value]) => `${name}=${String(value)}`)
          .join('&');
      const data = { host: url.hostname, mute, asked: asked.join('=') };
      const culprit = { at: 'element', offset: element.offset } as const;
      return [{ where, culprit, data, seen: [] }];
    });
  },
  says({ host, mute, asked }) {
    return {
      message: `The player’s address asks for autoplay (${asked}) with the sound on.`,
      notice: 'Browsers block it: visitors see a player that does not start.',
      cure: mute
        ? `Add \`${mute}\` to the address, or take \`${asked}\` out.`
        : `Add the parameter by which ${host} mutes its player, or take \`${asked}\` out.`,
    };
  },
  mend({ mute, asked }, { where }, markup) {
    const written = markup.text.slice(where.offset, where.endOffset);
    const at = written.indexOf(asked);
    if (at < 0) return null;
    const offset = where.offset + at;
    const text = mute
      ? `${asked}&amp;${mute.replaceAll('&', '&amp;')}`
      : asked.replace(/=.*|$/, '=0');
    return [{ do: 'replace-text', span: { offset, endOffset: offset + asked.length }, text }];
  },
  samples: [
    { host: 'player.loam.example', mute: null, asked: 'autoplay=1' },
    { host: 'player.loam.example', mute: 'quiet=1', asked: 'autoplay=1' },
  ],
  examples: {
    faulty: [
      {
        name: 'autoplay without mute',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=1" allow="autoplay" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
    sound: [
      {
        name: 'muted by the player’s parameter',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=1&amp;quiet=1" allow="autoplay" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'autoplay switched off',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?autoplay=0" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
  },
});

type Mute = House['players'][string]['mute'];

function getOwnMute(house: House, host: string): Mute | null {
  const player = Object.entries(house.players).find(([pattern]) => matchesHost(pattern, host));
  return player?.[1].mute ?? null;
}

/** With the house's word on the player, that parameter alone counts. */
function isMuted(parameters: readonly [string, string][], own: Mute | null): boolean {
  if (own) {
    return Object.entries(own).every(([name, value]) =>
      parameters.some(([given, text]) => given === name && text === String(value)),
    );
  }
  return parameters.some(([name, value]) =>
    MUTES.some(([names, values]) => names.test(name) && values.test(value)),
  );
}
