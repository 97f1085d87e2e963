import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck } from '../../core/check.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

/** An address and nothing else, as it is copied from an address bar or a message. */
const ADDRESS = /^<?((https?:)?\/\/[^\s<>"']+|www\.[^\s<>"'/]+\.[a-z]{2,}[^\s<>"']*)>?$/i;

export default defineCheck({
  id: 'address-instead-of-code',
  subject: 'paste',
  level: 'blocker',
  title: 'The paste is an address, not code',
  decided: 'The whole paste is one http(s) address.',
  standard: null,
  needs: [],
  markup: true,
  // A long address in one line is no fault of its own.
  explains: [
    {
      findings: ['page-scrolls-sideways', 'slot-overflow', 'nothing-rendered', 'tag-left-open'],
      anywhere: true,
      fits: () => true,
    },
  ],
  judge(c) {
    const address = c.snippet.text.trim();
    const found = ADDRESS.exec(address)?.[1];
    if (
      !found ||
      !parseAddress(found.replace(/^(?!https?:|\/\/)/i, 'https://'), 'https://x.invalid')
    )
      return [];
    const offset = c.snippet.text.indexOf(address);
    return [
      tell.markup(atSnippet('paste', { offset, endOffset: offset + address.length }), {
        address: found,
      }),
    ];
  },
  says: ({ address }) => ({
    message: `The paste is only an address (${address}): there is no code in it.`,
    notice: 'Visitors see a line of text, or nothing.',
    cure: 'Ask for the code to embed, which most players and maps offer under “Share” or “Embed”; or make a link of it.',
  }),
  samples: [{ address: 'https://player.loam.example/watch/talk' }],
  examples: {
    faulty: [
      { name: 'from the address bar', code: 'https://player.loam.example/watch/talk' },
      { name: 'without its protocol', code: 'www.fernmap.example/glasshouse\n' },
    ],
    sound: [
      { name: 'a link', code: '<a href="https://player.loam.example/watch/talk">The talk</a>' },
      { name: 'an address in a sentence', code: 'See www.fernmap.example for the way.' },
    ],
  },
});
