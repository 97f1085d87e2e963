import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { mapPresent } from '../../core/lists.js';
import { findLoudAddress, type LoudAddress } from '../../core/measure/loud-address.js';
import { tell } from '../../core/tell.js';

type Data = Pick<LoudAddress, 'host' | 'mute' | 'asked'>;

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
  judge: ({ markup, house }) =>
    mapPresent(markup.elements, (element): Fact<Data> | null => {
      const loud = findLoudAddress(element, house);
      if (!loud) return null;
      const { source, host, mute, asked } = loud;
      return tell.markup(atTag(element, source), { host, mute, asked });
    }),
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
