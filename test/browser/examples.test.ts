import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { applyEdits } from '../../dist/src/core/mend/apply.js';
import { isDrill } from '../../dist/src/core/plan.js';
import { openLive, type Live } from '../support/live.js';
import {
  getEssence,
  judgeRecorded,
  listExamples,
  type Recorded,
  listRecorded,
  RECORDING,
  writeRecorded,
} from '../support/recorded.js';
import { isSampled } from '../support/sample.js';

const NOT_WHOLE = ['host-private-address', 'page-hangs'];
const fresh: Record<string, Recorded> = {};
let live: Live;

beforeAll(async () => {
  live = await openLive();
}, 60_000);

afterAll(async () => {
  await live.close();
  if (RECORDING) writeRecorded('examples', fresh);
});

describe('the browser, on the examples of all checks', () => {
  const known: Record<string, Recorded> = Object.fromEntries(
    RECORDING ? [] : listRecorded().map(({ key, ...one }) => [key, one]),
  );

  test.concurrent.each(listExamples().filter((_, at) => isSampled(at, 30)))(
    '$key',
    async ({ key, code, under, check, kind }) => {
      const rendered = await live.render(code, under, isDrill(check) ? 'drilled' : undefined);
      fresh[key] = rendered;
      const findings = judgeRecorded(rendered);
      const gaps = rendered.evidence.flatMap((one) => one.gaps);
      // What is refused, or stopped, is not wholly seen.
      if (kind === 'faulty' && NOT_WHOLE.includes(check.id)) expect(gaps).not.toEqual([]);
      else expect(gaps).toEqual([]);
      expect(findings.map(({ id }) => id)).toEqual(kind === 'faulty' ? [check.id] : []);
      if (!RECORDING) expect(getEssence(findings)).toEqual(getEssence(judgeRecorded(known[key]!)));
      for (const { mend } of findings) {
        if (!mend) continue;
        const mended = await live.render(
          applyEdits(code, mend),
          under,
          isDrill(check) ? 'drilled' : undefined,
        );
        fresh[`${key} mended`] = mended;
        expect(judgeRecorded(mended).map(({ id }) => id)).not.toContain(check.id);
      }
    },
    60_000,
  );
});
