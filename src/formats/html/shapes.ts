import type { Level } from '../../core/house/house.js';
import { html, trusted, type Html } from './template.js';

const DRAWN: Record<Level | 'sound' | 'waived', string> = {
  waived:
    '<path d="M6 1.2 10.8 6 6 10.8 1.2 6z" fill="none" stroke="currentColor" stroke-width="1.6"/>',
  blocker: '<rect x="1" y="1" width="10" height="10" fill="currentColor"/>',
  concern:
    '<rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" stroke-width="1.6"/><rect x="1" y="1" width="5" height="10" fill="currentColor"/>',
  advice:
    '<rect x="1.4" y="1.4" width="9.2" height="9.2" fill="none" stroke="currentColor" stroke-width="1.6"/>',
  sound: '<circle cx="6" cy="6" r="1.6" fill="currentColor"/>',
};

/** The shape that stands for a level, with the level's word for those who do not see it. */
export function formatShape(level: Level | 'waived' | null): Html {
  const name = level ?? 'sound';
  return html`<svg class="shape ${name}" viewBox="0 0 12 12" role="img" aria-label="${name}">
    ${trusted(DRAWN[name])}
  </svg>`;
}
