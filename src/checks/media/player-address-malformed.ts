import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getFrameSource } from '../../core/markup/embeds.js';
import { findAddressFaults, type AddressFault } from '../../core/markup/malformed.js';
import type { MarkupAttribute } from '../../core/markup/markup.js';
import { describeElement } from '../../core/markup/names.js';
import { matchesHost, parseAddress } from '../../core/measure/site.js';
import { isPlayer } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';
import { capitalize, joinWords } from '../../core/words/list.js';

interface Data {
  faults: AddressFault[];
}

export default defineCheck({
  id: 'player-address-malformed',
  subject: 'media',
  level: 'concern',
  title: 'The address of a player or another frame is put together wrongly',
  decided:
    'The address of a frame has a second `?` where an `&` belongs, an `&` with a parameter before any `?`, a quote or a space that belongs to no value, or, of a player, a parameter given twice with different values. Addresses that are parameters of another one, lists (`name[]`) and encoded quotes in pairs are sound.',
  standard: 'URL Living Standard, 4.3 URL writing',
  needs: [],
  markup: true,
  judge({ markup, house }): Fact<Data>[] {
    const players = Object.keys(house.players);
    return flatMap(markup.elements, (element): Fact<Data>[] => {
      const source = getFrameSource(element);
      if (!source) return [];
      const host = parseAddress(source.value.trim(), house.origin)?.hostname ?? '';
      const player =
        isPlayer(describeElement(element)) || players.some((one) => matchesHost(one, host));
      const { raw, offset } = getRawValue(markup.text, source);
      const faults = findAddressFaults(raw, offset, player);
      const [first] = faults;
      if (!first) return [];
      return [tell.markup(atPart(element, source.name, first), { faults })];
    });
  },
  says({ faults }) {
    const [first] = faults as [AddressFault];
    const cures = [...new Set(faults.map(sayCure))];
    return { ...SAYS[first.what](first), cure: `${capitalize(joinWords(cures))}.` };
  },
  mend({ faults }) {
    return faults.map(({ offset, endOffset, put }) => ({
      do: 'replace-text',
      span: { offset, endOffset },
      text: put,
    }));
  },
  samples: [
    { faults: [{ what: 'second-question', piece: '?', put: '&amp;', offset: 0, endOffset: 1 }] },
    { faults: [{ what: 'no-question', piece: '&', put: '?', offset: 0, endOffset: 1 }] },
    { faults: [{ what: 'quote', piece: '"', put: '', offset: 0, endOffset: 1 }] },
    { faults: [{ what: 'space', piece: ' ', put: '', offset: 0, endOffset: 1 }] },
    { faults: [{ what: 'twice', piece: '&quality=low', put: '', offset: 0, endOffset: 1 }] },
  ],
  examples: {
    faulty: [
      {
        name: 'two question marks',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?start=20?quiet=1" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'two values of one parameter',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?quality=high&amp;quality=low" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
    sound: [
      {
        name: 'parameters as they belong',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?start=20&amp;quiet=1" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'an address in an address',
        code: '<iframe title="A talk on bean seed" src="https://player.loam.example/embed/talk?page=https://www.seedlibrary.example/talks?year=2026" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
  },
});

function getRawValue(text: string, { offset, endOffset }: MarkupAttribute) {
  const written = text.slice(offset, endOffset);
  const [, before, quote] = /^([^=]*=\s*)(["']?)/.exec(written) ?? ['', written, ''];
  const from = before!.length + quote!.length;
  const to = quote && written.endsWith(quote) ? written.length - 1 : written.length;
  return { raw: written.slice(from, Math.max(from, to)), offset: offset + from };
}

type Says = { message: string; notice: string };

const LOST =
  'The player does not get what it was told: it starts elsewhere, with its sound on, or not at all.';

const SAYS: Record<AddressFault['what'], (fault: AddressFault) => Says> = {
  'second-question': () => ({
    message: 'The address has a second `?`: what follows belongs to the value before it.',
    notice: LOST,
  }),
  'no-question': () => ({
    message: 'The address has an `&` before any `?`: what follows belongs to the path.',
    notice: 'What the address leads to is not there, or does not get what it was told.',
  }),
  quote: ({ piece }) => ({
    message: `A quote (${piece}) stands in the address and belongs to no value of it.`,
    notice: LOST,
  }),
  space: () => ({
    message: 'There is a space in the address.',
    notice: LOST,
  }),
  twice: ({ piece }) => ({
    message: `A parameter is given twice, with different values: ${piece.slice(1)} is the second.`,
    notice: 'Which of the two counts is the player’s choice, and may not be the one meant.',
  }),
};

function sayCure({ what, piece, put }: AddressFault): string {
  if (what === 'twice') return `leave only the one of the two that is meant`;
  if (put === '') return `take the ${NOUNS[what]} out`;
  return what === 'space' ? 'write the space as `%20`' : `write \`${put}\` for the \`${piece}\``;
}

const NOUNS: Record<AddressFault['what'], string> = {
  'second-question': 'second `?`',
  'no-question': '`&`',
  quote: 'quote',
  space: 'space',
  twice: 'second',
};
