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
    session.send('Emulation.setTouchEmulationEnabled', {
      enabled: touch,
      maxTouchPoints: touch ? 5 : 1,
    }),
    session.send('Emulation.setScrollbarsHidden', { hidden: scrollBars === 'overlay' }),
    session.send('Emulation.setEmulatedMedia', {
      features: [
        { name: 'prefers-color-scheme', value: scheme },
        { name: 'prefers-reduced-motion', value: MOTION[variant] },
      ],
    }),
  ]);
}

/**
 * Brings the window to another size and density, all else as it was: to say again that there is no
 * touch makes the browser look for a mouse in this machine.
 */
export async function resize(session: Session, viewport: Viewport): Promise<void> {
  const { width, height, density, touch } = viewport;
  await session.send('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: density,
    mobile: touch,
    screenWidth: width,
    screenHeight: height,
  });
}
