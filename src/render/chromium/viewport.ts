import {
  CONDITIONS,
  isOneKind,
  USUAL_MEDIA,
  type Variant,
  type Viewport,
} from '../../core/render.js';
import type { Session } from './connection.js';
import type { OpenedPage } from './context.js';

/** How much of a page is drawn that nobody looks at, px: what it measures goes by the emulated window. */
export const UNSEEN = { width: 32, height: 32 };

/** The window in which a page is seen. Little of it is drawn, which costs a seventh of a render; shots draw what they need. */
export class Window {
  #session: Session;
  #setBounds: OpenedPage['setBounds'];
  /** Its size on the outside. */
  #outer = '';
  #viewport: Viewport | null = null;
  #variant: Variant = 'as-is';
  #density: number | null = null;
  /** All of it is drawn. */
  #revealed = false;

  constructor({ session, setBounds }: Pick<OpenedPage, 'session' | 'setBounds'>) {
    this.#session = session;
    this.#setBounds = setBounds;
  }

  /** Makes the page seen as the viewport says. A touch viewport has overlay scroll bars, as phones have. */
  async set(viewport: Viewport, variant: Variant): Promise<void> {
    const session = this.#session;
    const { touch, scrollBars } = viewport;
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
      session.hold('Emulation.setEmulatedMedia', { features: listMedia(viewport, variant) }),
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

  /** A window has a bar above its page. Of a phone the browser says itself what it says of it. */
  #setOuter({ width, height, touch }: Viewport): void {
    const outer = `${width} ${height}`;
    if (touch || outer === this.#outer) return;
    this.#outer = outer;
    this.#setBounds({ width, height: height + BARS });
    if (!this.#revealed) this.#session.tell('Emulation.setVisibleSize', UNSEEN);
  }

  async #setMetrics(viewport: Viewport): Promise<void> {
    const { width, height, density, touch } = viewport;
    this.#setOuter(viewport);
    await this.#session.send('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: density,
      mobile: touch,
      ...getScreen({ width, height, touch }),
      dontSetVisibleSize: !this.#revealed,
    });
  }
}

/** The usual screen of a desktop, px; and the bars above and below a window. */
const DESKTOP = { width: 1920, height: 1080 };
const BARS = 104;

/** A screen that has room for more than the window. */
function getScreen({ width, height, touch }: Pick<Viewport, 'width' | 'height' | 'touch'>) {
  if (touch) return { screenWidth: width, screenHeight: height + BARS };
  return {
    screenWidth: Math.max(width, DESKTOP.width),
    screenHeight: Math.max(height + BARS, DESKTOP.height),
  };
}

function listMedia(
  { scheme, media: own }: Viewport,
  variant: Variant,
): { name: string; value: string }[] {
  const { media } = CONDITIONS[variant];
  const all = { 'prefers-color-scheme': scheme, ...USUAL_MEDIA, ...own, ...media };
  return Object.entries(all).map(([name, value]) => ({ name, value }));
}
