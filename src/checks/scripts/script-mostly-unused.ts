import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { RunScript } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { atCode } from '../../core/measure/code.js';
import { formatBytes } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** null for one that stands in the snippet. */
  address: string | null;
  /** Bytes, as characters. */
  length: number;
  unused: number;
}

/** As much of a script that never ran, as a share and in bytes. */
const [SHARE, BYTES] = [0.6, 50_000];

export default defineCheck({
  id: 'script-mostly-unused',
  subject: 'scripts',
  level: 'advice',
  title: 'Most of a script never runs',
  decided:
    'Of a script that the snippet brings, in its page or from elsewhere, more than 60 % and more than 50 kB are functions and branches that have not run in any window, hands tried. Data and comments count as run.',
  standard: null,
  needs: ['code'],
  markup: false,
  judge: ({ markup, renders }): Fact<Data>[] => {
    const told = flatMap(renders, (render) => render.code.map((script) => ({ render, script })));
    const addresses = [...new Set(told.map(({ script }) => getName(script)))];
    return mapPresent(addresses, (name) => {
      // What a mouse never calls a finger may.
      const same = told.filter(({ script }) => getName(script) === name);
      const { render, script } = same.reduce((a, b) => (b.script.ran > a.script.ran ? b : a));
      const { address, length, ran } = script;
      const unused = length - ran;
      if (unused <= BYTES || unused <= SHARE * length) return null;
      const seen = makeSeen(render, { unpacked: unused });
      return tell.seen(atCode(markup, script), { address, length, unused }, seen, { group: name });
    });
  },
  says: ({ address, length, unused }) => ({
    message: `Of ${formatBytes(length)} of ${address === null ? 'the script in the snippet' : address} ${formatBytes(unused)} never ran (${Math.round((100 * unused) / length)} %).`,
    notice: 'It is loaded, unpacked and read all the same, most of all felt on phones.',
    cure: 'Ask its maker for a build with what is used here alone, or for one that loads the rest when it is needed.',
  }),
  brief: ({ unused, length }) => `${formatBytes(unused)} of ${formatBytes(length)} never ran`,
  samples: [
    { address: 'https://cdn.tallyroot.example/shelf.js', length: 90_000, unused: 81_000 },
    { address: null, length: 120_000, unused: 80_000 },
  ],
  examples: {
    faulty: [
      {
        name: 'a library of which one piece is called',
        code: '<p id="shelf">Shelf</p><script async src="https://cdn.tallyroot.example/shelf.js"></script>',
      },
    ],
    sound: [
      {
        name: 'one of which every piece is called',
        code: '<p id="shelf">Shelf</p><script async src="https://cdn.tallyroot.example/shelf.js?all"></script>',
      },
      {
        name: 'one that is mostly data',
        code: '<p>Visits</p><script async src="https://cdn.tallyroot.example/beds.js"></script>',
      },
    ],
  },
});

function getName({ address, from }: RunScript): string {
  return address ?? JSON.stringify(from);
}
