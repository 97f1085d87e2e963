import type { AsksFact, RequestFact } from '../../core/evidence.js';
import { listAskedConditions } from '../../core/conditions.js';
import { flatMap } from '../../core/lists.js';
import { isOneOfKind } from './once.js';
import { defineStep, type ReadScene } from './step.js';

/** What the files of a page ask of windows and visitors. */
export const asksStep = defineStep({
  name: 'asks',
  phase: 'asked of the browser',
  kind: 'asks',
  patience: 3,
  isDue: (scene) => scene.job.render.variant === 'as-is' && isOneOfKind(scene),
  take: takeAsks,
  tells: (_facts, asks) => ({ asks }),
});

const SCHEME = /scheme|light-dark/;

async function takeAsks({ page, facts, setting, baseline }: ReadScene): Promise<AsksFact> {
  const isFile = ({ type, inFrame }: RequestFact) => /^(script|style)$/.test(type) && !inFrame;
  const own = new Set(flatMap(facts.traffic, (one) => (isFile(one) ? [one.address] : [])));
  const { ownPage } = setting.around;
  const host = ownPage ? (baseline?.requests ?? []) : [];
  const files = own.size + host.length === 0 ? [] : await page.listFiles();
  const texts = (isMeant: (address: string) => boolean) =>
    flatMap(files, ({ address, text }) => (isMeant(address) ? listAskedConditions(text) : []));
  const sheets = texts((address) => !own.has(address));
  const served = ownPage ? listAskedConditions(setting.reach.served.html) : [];
  return {
    files: [...new Set(texts((address) => own.has(address)))].sort(),
    page: [...new Set([...served, ...sheets])].filter((one) => SCHEME.test(one)).sort(),
  };
}
