import type { Variant, Viewport } from '../../core/render.js';
import type { Session } from './connection.js';

/** What a visitor has asked their system for, by variant. */
const MOTION: Record<Variant, 'reduce' | 'no-preference'> = {
  'as-is': 'no-preference',
  empty: 'no-preference',
  'reduced-motion': 'reduce',
};

/** Makes the page seen as the viewport says. A touch viewport has overlay scroll bars, as phones have. */
export async function setViewport(
  session: Session,
  viewport: Viewport,
  variant: Variant,
): Promise<void> {
  const { touch, scrollBars, scheme } = viewport;
  await Promise.all([
    resize(session, viewport),
    session.hold('Emulation.setTouchEmulationEnabled', {
      enabled: touch,
      maxTouchPoints: touch ? 5 : 1,
    }),
    session.hold('Emulation.setScrollbarsHidden', { hidden: scrollBars === 'overlay' }),
    session.hold('Emulation.setEmulatedMedia', {
      features: [
        { name: 'prefers-color-scheme', value: scheme },
        { name: 'prefers-reduced-motion', value: MOTION[variant] },
      ],
    }),
  ]);
}

/** How much of a page is drawn that nobody looks at, px: what it measures goes by the emulated window. */
export const UNSEEN = { width: 32, height: 32 };

/**
 * Brings the window to another size and density, all else as it was: to say again that there is no
 * touch makes the browser look for a mouse in this machine. Little of it is drawn, which costs a
 * seventh of a render; shots draw what they need.
 */
export async function resize(session: Session, viewport: Viewport): Promise<void> {
  await setMetrics(session, viewport, false);
}

/** Draws the whole window: a finger reaches only what is drawn. */
export async function reveal(session: Session, viewport: Viewport): Promise<void> {
  await setMetrics(session, viewport, true);
}

async function setMetrics(
  session: Session,
  { width, height, density, touch }: Viewport,
  drawn: boolean,
): Promise<void> {
  await session.send('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: density,
    mobile: touch,
    screenWidth: width,
    screenHeight: height,
    dontSetVisibleSize: !drawn,
  });
}
