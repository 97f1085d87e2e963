import {
  CONDITIONS,
  isOneKind,
  USUAL_MEDIA,
  type Variant,
  type Viewport,
} from '../../core/render.js';
import type { Session } from './connection.js';

/** How much of a page is drawn that nobody looks at, px: what it measures goes by the emulated window. */
export const UNSEEN = { width: 32, height: 32 };

/** The window in which a page is seen. Little of it is drawn, which costs a seventh of a render; shots draw what they need. */
export class Window {
  #session: Session;
  #viewport: Viewport | null = null;
  #variant: Variant = 'as-is';
  #density: number | null = null;
  /** All of it is drawn. */
  #revealed = false;

  constructor(session: Session) {
    this.#session = session;
  }

  /** Makes the page seen as the viewport says. A touch viewport has overlay scroll bars, as phones have. */
  async set(viewport: Viewport, variant: Variant): Promise<void> {
    const session = this.#session;
    const { touch, scrollBars, scheme } = viewport;
    if (this.#revealed) session.tell('Emulation.setVisibleSize', UNSEEN);
    this.#revealed = false;
    this.#variant = variant;
    await Promise.all([
      this.#resize(viewport),
      session.hold('Emulation.setTouchEmulationEnabled', {
        enabled: touch,
        maxTouchPoints: touch ? 5 : 1,
      }),
      session.hold('Emulation.setScrollbarsHidden', { hidden: scrollBars === 'overlay' }),
      session.hold('Emulation.setEmulatedMedia', { features: listMedia(scheme, variant) }),
    ]);
  }

  /**
   * Brings it to another one, in the variant that it is in. Of one kind only the size is said: to say
   * again that there is no touch makes the browser look for a mouse in this machine.
   * @returns whether it is of the same kind
   */
  async become(viewport: Viewport): Promise<boolean> {
    const before = this.#viewport;
    const alike = before !== null && isOneKind(before, viewport);
    await (alike ? this.#resize(viewport) : this.set(viewport, this.#variant));
    return alike;
  }

  async #resize(viewport: Viewport): Promise<void> {
    this.#viewport = viewport;
    await this.#setMetrics(viewport);
  }

  /** Notes its density: whether it is another than was noted before. */
  noteDensity(): boolean {
    const before = this.#density;
    this.#density = this.#viewport?.density ?? null;
    return before !== null && before !== this.#density;
  }

  /** Has all of it drawn until it is set anew: a finger reaches only what is drawn. */
  async reveal(): Promise<void> {
    if (this.#revealed || !this.#viewport) return;
    this.#revealed = true;
    await this.#setMetrics(this.#viewport);
  }

  async #setMetrics({ width, height, density, touch }: Viewport): Promise<void> {
    await this.#session.send('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: density,
      mobile: touch,
      screenWidth: width,
      screenHeight: height,
      dontSetVisibleSize: !this.#revealed,
    });
  }
}

function listMedia(
  scheme: Viewport['scheme'],
  variant: Variant,
): { name: string; value: string }[] {
  const { media } = CONDITIONS[variant];
  const all = { 'prefers-color-scheme': scheme, ...USUAL_MEDIA, ...media };
  return Object.entries(all).map(([name, value]) => ({ name, value }));
}
