/** How far each animation of the page is, by what it moves: one that a change ends begins anew when that is taken back. */
export class Hold {
  readonly #times = new Map<Element, Map<string, CSSNumberish | null>>();

  constructor() {
    for (const one of this.#list()) {
      const { target, name } = nameAnimation(one);
      if (!target) continue;
      const known = this.#times.get(target) ?? new Map<string, CSSNumberish | null>();
      this.#times.set(target, known.set(name, one.currentTime));
    }
  }

  /** Brings every animation to where it was; one that was over, and left nothing behind, is over again. */
  restore(): void {
    // Where nothing was ever in motion nothing begins anew, and to ask costs a layout.
    if (this.#times.size === 0 && !globalThis.mivketNotebook.early?.animated) return;
    for (const one of this.#list()) {
      const { target, name } = nameAnimation(one);
      const time = target && this.#times.get(target)?.get(name);
      if (time === undefined) one.cancel();
      else if (time !== null && one.currentTime !== time) one.currentTime = time;
    }
  }

  /** Brings those of a copy of the page to where they are in the page, and lets them stand. */
  show(copy: Document, getCopy: (original: Element) => Element | undefined): void {
    const times = new Map([...this.#times].map(([one, known]) => [getCopy(one), known]));
    for (const one of copy.getAnimations()) {
      const { target, name } = nameAnimation(one);
      const time = target && times.get(target)?.get(name);
      one.pause();
      if (time !== undefined && time !== null) one.currentTime = time;
      // In the page it is over, and left nothing behind.
      else one.cancel();
    }
  }

  #list(): Animation[] {
    return globalThis.mivketNotebook.page.getAnimations();
  }
}

function nameAnimation(one: Animation): { target: Element | null; name: string } {
  const effect = one.effect as KeyframeEffect | null;
  const name = 'animationName' in one ? String(one.animationName) : one.id;
  return { target: effect?.target ?? null, name: `${effect?.pseudoElement ?? ''} ${name}` };
}
