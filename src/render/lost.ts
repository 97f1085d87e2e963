import { FACT_KINDS, type Evidence, type Render } from '../core/evidence.js';

/** The evidence of a render that gave none. */
export function makeLost(render: Render, why: string): Evidence {
  return {
    render,
    gaps: FACT_KINDS.map((kind) => ({ kind, why, seen: null, kept: null })),
    page: {
      atLoad: { scrollWidth: 0, clientWidth: 0, scrollable: false },
      afterScroll: null,
      readAt: 'load',
      direction: 'ltr',
      stillMoving: [],
      replaced: false,
    },
    slot: { name: '', box: { x: 0, y: 0, width: 0, height: 0 }, overhang: 0, text: false },
    elements: [],
    frames: [],
    media: [],
    pictures: [],
    traffic: [],
    scripts: { hung: null, dialogs: [], windows: [], navigations: [], console: [], sounds: [] },
    host: [],
    picture: null,
  };
}
