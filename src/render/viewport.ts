import type { Viewport } from '../core/house/house.js';
import type { Session } from './protocol/connection.js';

/** Makes the page seen as the viewport says. A touch viewport has overlay scroll bars, as phones have. */
export async function setViewport(session: Session, viewport: Viewport): Promise<void> {
  const { width, height, density, touch, scrollBars, scheme } = viewport;
  await Promise.all([
    session.send('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: density,
      mobile: touch,
      screenWidth: width,
      screenHeight: height,
    }),
    session.send('Emulation.setTouchEmulationEnabled', {
      enabled: touch,
      maxTouchPoints: touch ? 5 : 1,
    }),
    session.send('Emulation.setScrollbarsHidden', { hidden: scrollBars === 'overlay' }),
    session.send('Emulation.setEmulatedMedia', {
      features: [{ name: 'prefers-color-scheme', value: scheme }],
    }),
  ]);
}
