import type { RunScript, Source } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { isScript } from '../../core/markup/traits.js';
import type { RanScript } from '../page/browser-page.js';
import { isOneOfKind } from './once.js';
import { defineStep, type ReadScene } from './step.js';

/** How much of the snippet's scripts has run, once hands have used the page. */
export const coverageStep = defineStep({
  name: 'coverage',
  phase: 'used by hands',
  kind: 'code',
  isDue: (scene) => scene.own.changes && isOneOfKind(scene),
  take: async (scene, { gaps }) => {
    const ran = await scene.page.running.listRan();
    if (ran === null) gaps.push({ kind: 'code', why: UNKEPT, seen: null, kept: null });
    return mapPresent(ran ?? [], (one) => toFact(one, scene));
  },
  tells: (_facts, code) => ({ code }),
});

const UNKEPT = 'which of its code has run was not kept in mind';

/** null for what is not the snippet's. */
function toFact({ address, length, ran }: RanScript, scene: ReadScene): RunScript | null {
  if (address === scene.page.address) {
    const from = findInline(scene, length);
    return from && { address: null, from, length, ran };
  }
  const request = scene.facts.traffic.find(
    (one) => one.type === 'script' && !one.inFrame && one.address === address,
  );
  return request ? { address, from: request.from, length, ran } : null;
}

/** One that stands in the snippet is known by how long it is. */
function findInline({ markup }: ReadScene, length: number): Source | null {
  const script = markup?.elements.find((one) => isScript(one) && one.text.length === length);
  return script ? { offset: script.offset } : null;
}
