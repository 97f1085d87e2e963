import { afterAll, expect, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import { audit } from '../../dist/src/index.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const texts = CHECKS.flatMap(({ examples }) => [...examples.faulty, ...examples.sound]).map(
  ({ code }) => code,
);

test('the bundled program finds in the markup what the library finds', async () => {
  const named = texts.map((text, i) => ({ name: `${i}`.padStart(4, '0'), text }));
  for (const { name, text } of named) shop.write(`all/${name}.html`, text);
  const run = audit({ snippets: named, markupOnly: true });
  const { document } = await shop.audit(['all', '--markup-only']);
  const list = ({ snippets }: typeof document) =>
    snippets.map(({ findings }) =>
      findings.map(({ id, where, message }) => ({ id, where, message })),
    );
  expect(list(document)).toEqual(list(await run.document));
});
