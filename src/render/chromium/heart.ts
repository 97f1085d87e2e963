/** How often a page is asked whether it still answers, ms. */
const BEAT = 400;
/** How often an answer may fail while the page talks all the same. */
const MOST_DEAF = 4;

/** What is asked of a page's heart. */
export interface Heart {
  ended: boolean;
  /** What it tells is still on its way. */
  talks: boolean;
  answers(ms: number): Promise<boolean>;
}

/** Asks the page again and again; `hung` resolves when it has not answered for `ms`. */
export function watchHeart(get: () => Heart, ms: number): { hung: Promise<'hung'>; stop(): void } {
  let stopped = false;
  let deaf = 0;
  let wake: NodeJS.Timeout | undefined;
  const hung = new Promise<'hung'>((resolve) => {
    const beat = async () => {
      const answered = get().ended || (await get().answers(ms));
      if (stopped) return;
      deaf = answered ? 0 : deaf + 1;
      // What a page logs without measure comes before its answer: that is no hang yet.
      const talks = get().talks && deaf < MOST_DEAF;
      if (answered || get().ended || talks) wake = setTimeout(() => void beat(), BEAT);
      else resolve('hung');
    };
    wake = setTimeout(() => void beat(), BEAT);
  });
  const stop = () => {
    stopped = true;
    clearTimeout(wake);
  };
  return { hung, stop };
}
