import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { cpSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { RunDocument } from '../../dist/src/core/run.js';
import { Workshop } from '../support/program.js';

/** What somebody adds who has read CONTRIBUTING: a kind of fact, a step that finds out more of it, and a check of it. */
const FILES = {
  'facts/rulers/fact.ts': `
import * as z from 'zod';
import { objectShape, whoShape } from '../common.js';
import { defineKind } from '../kind.js';

const ruler = z.object({ ...objectShape, ...whoShape, across: z.number(), share: z.number() });

export const rulers = defineKind({
  inPage: true,
  layout: true,
  ofElements: true,
  schema: z.array(ruler),
  empty: [],
});
`,
  'facts/rulers/read.ts': `
import type { ObjectReader } from '../../render/in-page/object-reader.js';

export interface RawRuler {
  id: number;
  tag: string;
  across: number;
}

export const readRuler: ObjectReader<RawRuler | null> = {
  fits: (_real, node) => node.localName === 'hr',
  read: (real, node, book) => ({
    id: book.idOf(real),
    tag: 'hr',
    across: node.getBoundingClientRect().width,
  }),
};
`,
  'facts/rulers/collect.ts': `
import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectRulers: Collector<'rulers'> = ({ parted, reading }) =>
  withElements(reading?.objects.rulers, parted).map((one) => ({ ...one, share: 0 }));
`,
  'render/steps/shares.ts': `
import { defineStep } from './step.js';

export const sharesStep = defineStep({
  name: 'shares',
  phase: 'asked of the browser',
  kind: 'rulers',
  take: ({ reading }) => Promise.resolve(reading.raw.width.clientWidth),
  tells: ({ rulers }, width) => ({
    rulers: rulers.map((one) => ({ ...one, share: one.across / width })),
  }),
});
`,
  'checks/page/ruler-too-long.ts': `
import { defineCheck, makeSeen } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';

export default defineCheck({
  id: 'ruler-too-long',
  subject: 'page',
  level: 'advice',
  title: 'A ruler takes up the whole window',
  decided: 'An hr is over nine tenths as wide as the window.',
  standard: null,
  needs: ['rulers'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      render.rulers
        .filter(({ share }) => share > 0.9)
        .map((one) =>
          tell.seen(blameElement(markup, one), null, makeSeen(render, { share: one.share })),
        ),
    ),
  says: () => ({
    message: 'The ruler takes up the whole window.',
    notice: 'It looks like the end of the page.',
    cure: 'Make it shorter.',
  }),
  measures: ({ share }) => \`\${Math.round(share * 100)} % of the window\`,
  samples: [null],
  examples: { faulty: [], sound: [] },
});
`,
};

/** The lines that name them: the first that fits is followed by the new one. */
const LINES: [file: string, after: RegExp, line: string][] = [
  ['facts/kinds.ts', /^import .*policy.*$/m, "import { rulers } from './rulers/fact.js';"],
  ['facts/kinds.ts', /^  policy,$/m, '  rulers,'],
  [
    'facts/collector.ts',
    /^import .*collectPolicy.*$/m,
    "import { collectRulers } from './rulers/collect.js';",
  ],
  ['facts/collector.ts', /^  policy: collectPolicy,$/m, '  rulers: collectRulers,'],
  [
    'facts/readers.ts',
    /^import .*readPicture.*$/m,
    "import { readRuler } from './rulers/read.js';",
  ],
  ['facts/readers.ts', /^  pictures: readPicture,$/m, '  rulers: readRuler,'],
  ['render/steps/table.ts', /^import .*rulesStep.*$/m, "import { sharesStep } from './shares.js';"],
  ['render/steps/table.ts', /^  refusedStep,$/m, '  sharesStep,'],
  [
    'checks/index.ts',
    /^import .*requestFailed.*$/m,
    "import rulerTooLong from './page/ruler-too-long.js';",
  ],
  ['checks/index.ts', /^  requestFailed,$/m, '  rulerTooLong,'],
];

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const shop = new Workshop();
const copy = join(shop.folder, 'mivket');

beforeAll(() => {
  for (const name of ['bin', 'src', 'scripts', 'demo', 'package.json', 'tsconfig.json'])
    cpSync(join(ROOT, name), join(copy, name), { recursive: true });
  cpSync(join(ROOT, 'tsconfig.build.json'), join(copy, 'tsconfig.build.json'));
  symlinkSync(join(ROOT, 'node_modules'), join(copy, 'node_modules'));
  for (const [name, text] of Object.entries(FILES)) shop.write(`mivket/src/${name}`, text);
  for (const [file, after, line] of LINES) {
    const path = join(copy, 'src', file);
    const text = readFileSync(path, 'utf8');
    expect({ file, fits: after.test(text) }).toEqual({ file, fits: true });
    writeFileSync(
      path,
      text.replace(after, (found) => `${found}\n${line}`),
    );
  }
});

afterAll(() => shop.close());

const run = (args: string[]) => shop.launch(process.execPath, args, {}, copy).done;

test('a kind of fact, a step and a check are a folder or a file each, and a line', async () => {
  expect(await run(['scripts/bundle.js'])).toMatchObject({ code: 0, err: '' });
  const code =
    '<p>Sow in May.</p><hr style="box-sizing: border-box; width: 100vw; margin: 0 -16px"><hr style="width: 90px">';
  const args = ['audit', '--code', code, '--width', '390', '--only', 'ruler-too-long'];
  const { out } = await run(['bin/mivket.js', ...args, '--format', 'json']);
  const { snippets, notJudged } = JSON.parse(out) as RunDocument;
  const [finding, ...others] = snippets[0]!.findings;
  expect({ others, notJudged }).toEqual({ others: [], notJudged: [] });
  expect(finding).toMatchObject({ id: 'ruler-too-long', where: { offset: 18 } });
  expect(finding!.seen.map(({ what }) => what)).toEqual(['100 % of the window']);
});

// It takes the compiler a while: `npm run drill` has it.
(process.env.MIVKET_ALL ? test : test.skip)('and nothing else has to be told of them', async () => {
  const { code, out } = await run([
    'node_modules/typescript/bin/tsc',
    '-p',
    'tsconfig.build.json',
    '--noEmit',
  ]);
  expect({ code, out }).toEqual({ code: 0, out: '' });
});
