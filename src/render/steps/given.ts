import type { Facts, HostPartFact, RefusedStyle } from '../../core/evidence.js';
import type { Intent } from '../../core/mend/intent.js';
import type { Heights } from './naturals.js';
import type { TakenShot } from './shot.js';
import type { Windows } from './windows.js';

/** What steps give, by name. What was not taken, or not answered, gives nothing. */
export interface Given {
  /** The declarations that the browser does not take. */
  refused: readonly RefusedStyle[];
  /** The parts of the page around, with the selectors that they fit. */
  fitting: HostPartFact[];
  /** What is behind texts, `#rrggbb`, by their elements' numbers. */
  grounds: ReadonlyMap<number, string>;
  /** How high frames' documents are by themselves, by the frames' numbers. */
  naturals: Heights;
  windows: Windows;
  /** What makes things too wide, and the cures that were found besides those that were known. */
  causes: { facts: Facts['causes']; found: readonly Intent[][] };
  reaching: Facts['reaching'];
  handling: Facts['handling'];
  shot: TakenShot | null;
  harm: TakenShot | null;
}

/** The facts of a snippet, with what steps gave. */
export function complete(facts: Facts, given: Partial<Given>): Facts {
  const { grounds, naturals } = given;
  return {
    ...facts,
    styles: given.refused ? [...given.refused] : facts.styles,
    host: given.fitting ?? facts.host,
    texts: grounds
      ? facts.texts.map((text) => ({ ...text, ground: grounds.get(text.id) ?? text.ground }))
      : facts.texts,
    frames: naturals
      ? facts.frames.map((frame) => {
          const natural = naturals.get(frame.id);
          if (natural === undefined || !frame.inner) return frame;
          return { ...frame, inner: { ...frame.inner, natural } };
        })
      : facts.frames,
    widths: given.windows?.widths ?? facts.widths,
    causes: given.causes?.facts ?? facts.causes,
    reaching: given.reaching ?? facts.reaching,
    handling: given.handling ?? facts.handling,
  };
}
