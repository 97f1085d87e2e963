import { joinTraits, type Traits } from '../core/markup/traits.js';
import { CONDITIONS, isOneKind } from '../core/render.js';
import type { Job } from './life/job.js';
import type { Booth } from './life/booths.js';
import { ServedPage, type Sources } from './page/served-page.js';
import type { RendererOptions } from './renderer-options.js';
import type { Reach } from './setting.js';

/** How a page is reached from what stands in a booth. */
export function findReach(
  booth: Booth,
  job: Job,
  sources: Sources,
  hostTraits: Traits,
  options: Pick<RendererOptions, 'alwaysLoad' | 'published'>,
): Reach {
  const traits = joinTraits(job.subject.traits);
  const all = joinTraits([traits, hostTraits]);
  const { live, changes } = all;
  const isSame = booth.shown?.isOf(sources) ?? false;
  const served = isSame ? booth.shown! : new ServedPage(sources);
  const still = isSame && !live && traits.resizable;
  if (still && isResizable(booth, job, all, options)) return { by: 'resize', served };
  const framed = live ? 'framed-code' : 'no-code';
  return { by: 'load', served, before: booth.shown && (changes ? 'code' : framed) };
}

/** Whether what stands there can be brought to another window, and not tell. */
function isResizable(
  { viewport, variant, page }: Booth,
  { render, profile }: Job,
  traits: Traits,
  { alwaysLoad, published }: Pick<RendererOptions, 'alwaysLoad' | 'published'>,
): boolean {
  if (viewport === null || variant !== render.variant || alwaysLoad || profile) return false;
  // What a finger began may come later: a tap that takes the focus, a page that glides on.
  if (page.happened.handled || CONDITIONS[render.variant].timed) return false;
  if (isOneKind(viewport, render.viewport)) return true;
  // A film has other controls under a finger, and whoever is asked may answer by the kind of browser.
  const asks = traits.asksKind || traits.media || published || page.requests.requests.length > 1;
  return viewport.scheme === render.viewport.scheme && traits.resizable && !asks;
}
