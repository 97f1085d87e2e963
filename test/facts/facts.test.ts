import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { prepareRenders, selectRenders } from '../../src/core/check.js';
import { evidenceSchema, baselineSchema } from '../../src/core/evidence.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { collectFacts, type Collector, type Look } from '../../src/facts/collector.js';
import { FACT_KINDS, forKinds, getEmptyFacts, KINDS } from '../../src/facts/kinds.js';
import { EXAMPLE_HOUSE, listRecorded } from '../support/recorded.js';

const recorded = listRecorded();

test('what stands where nothing was measured is of its kind, and a copy each time', () => {
  for (const kind of FACT_KINDS) KINDS[kind].schema.parse(KINDS[kind].empty);
  const facts = getEmptyFacts();
  facts.page.stillMoving.push('fonts');
  expect(getEmptyFacts().page.stillMoving).toEqual([]);
});

test('everything that was recorded is as the kinds say', () => {
  for (const { evidence } of recorded)
    for (const one of evidence) expect(evidenceSchema.parse(one)).toEqual(one);
  // Most pages without snippets are the same one.
  const pages = new Set(recorded.flatMap(({ baselines }) => baselines));
  for (const [, baseline] of pages) expect(baselineSchema.parse(baseline)).toEqual(baseline);
});

describe('a kind that cannot be told', () => {
  const collectors = forKinds((kind) => () => KINDS[kind].empty) as unknown as Parameters<
    typeof collectFacts
  >[1] &
    Record<string, Collector<never>>;
  const look = { reading: null } as unknown as Look;

  test('is a gap of its own, and costs the others nothing', () => {
    const broken = {
      ...collectors,
      frames: () => {
        throw new Error('no such thing\n at line 1');
      },
    };
    const { facts, gaps } = collectFacts(look, broken);
    expect(gaps).toEqual([
      { kind: 'frames', why: 'frames could not be read (no such thing)', seen: null, kept: null },
    ]);
    expect(facts).toEqual(getEmptyFacts());
  });

  test('also where it broke down in the page', () => {
    const reading = { objects: { failed: { media: 'TypeError: x' } } };
    const { gaps } = collectFacts({ ...look, reading } as unknown as Look, collectors);
    expect(gaps.map(({ kind }) => kind)).toEqual(['media']);
  });
});

test('facts are plain data: what is written down is what was found', () => {
  const found = recorded.flatMap(({ code, evidence, baselines }) => {
    const markup = readMarkup(code);
    const snippet = { name: 'example', path: null, text: code };
    const prepared = prepareRenders(evidence, new Map(baselines));
    return CHECKS.flatMap((check) => {
      const renders = selectRenders(prepared, check.needs);
      const today = '2026-01-01';
      return check.judge({ snippet, markup, house: EXAMPLE_HOUSE, renders, today });
    });
  });
  expect(found.length).toBeGreaterThan(50);
  expect(JSON.parse(JSON.stringify(found))).toEqual(found);
});
