import { atPart } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { mapPresent } from '../../core/lists.js';
import { getAttribute, getValue, type MarkupElement } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { findAnswer } from '../../core/measure/failed.js';
import { isThirdParty, parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  host: string;
}

/** A whole version in a path (Semantic Versioning, 2): behind the name of a package, or a piece of its own. */
const PINNED = /(@|\/)v?\d+\.\d+\.\d+([-+][\w.+-]*)?(\/|$)/;

export default defineCheck({
  id: 'script-without-integrity',
  subject: 'scripts',
  level: 'advice',
  title: 'A script of another site that never changes has no integrity',
  decided:
    'The address of another site’s script has a whole version in it (`name@1.4.2`, `/1.4.2/`), so that the file never changes, and the tag has no `integrity`. Only where its host lets other sites read it, because the browser could not compare it otherwise.',
  standard: 'Subresource Integrity, 3.3',
  needs: ['traffic'],
  markup: true,
  judge: (c): Fact<Data>[] =>
    mapPresent(c.markup.elements, (element) =>
      isScript(element) ? judgeScript(c, element) : null,
    ),
  says: ({ host }) => ({
    message: `The script from ${host} has a fixed version and no \`integrity\`.`,
    notice: 'Whoever gets to change the file there changes the page for all its visitors.',
    cure: 'Add `integrity` with the digest of the file, and `crossorigin="anonymous"`.',
  }),
  brief: ({ host }) => `a script from ${host} without integrity`,
  samples: [{ host: 'cdn.tallyroot.example' }],
  examples: {
    faulty: [
      {
        name: 'a whole version from another site',
        code: '<p>Beds</p><script async src="https://cdn.tallyroot.example/npm/bedlist@2.1.0/bedlist.js"></script>',
      },
    ],
    sound: [
      {
        name: 'with its digest',
        code: '<p>Beds</p><script async src="https://cdn.tallyroot.example/npm/bedlist@2.1.0/bedlist.js" integrity="sha256-A+P/kMzHGAKS1jPpNE6Yxc5sv/FnNvfnujrzxqgltb8=" crossorigin="anonymous"></script>',
      },
      {
        name: 'a host that lets nobody read it',
        code: '<p>Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"></script>',
      },
      {
        name: 'a file that changes',
        code: '<p>Beds</p><script async src="https://tally.example/small.js"></script>',
      },
    ],
  },
});

function judgeScript(
  { house, renders }: Case<'traffic'>,
  element: MarkupElement,
): Fact<Data> | null {
  const src = getAttribute(element, 'src');
  const url = src && parseAddress(src.value.trim(), house.origin);
  if (!src || !url || !isThirdParty(url.hostname, house.origin)) return null;
  if (!PINNED.test(url.pathname.replace(/%40/gi, '@')) || getValue(element, 'integrity')?.trim())
    return null;
  const shared = renders.filter(({ traffic }) => {
    const sharedWith = findAnswer(url.href, traffic)?.sharedWith;
    return sharedWith === '*' || sharedWith === house.origin;
  });
  if (renders.length > 0 && shared.length === 0) return null;
  return tell.seen(
    atPart(element, 'src', src),
    { host: url.hostname },
    shared.map((render) => makeSeen(render, {})),
  );
}
