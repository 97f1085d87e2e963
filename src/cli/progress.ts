import cliProgress, { type SingleBar } from 'cli-progress';
import { clean } from '../formats/clean.js';
import type { Output } from './streams.js';

/** Progress on standard error: which snippet, how many renders of how many. Silent where that is no terminal. */
export class ProgressBar {
  readonly shown: boolean;
  #output: Output;
  #snippets: number;
  #total = 0;
  #done = 0;
  #name = '';
  #bar: SingleBar | null = null;

  constructor(output: Output, quiet: boolean, snippets: number) {
    this.shown = !quiet && Boolean(output.isTTY);
    this.#output = output;
    this.#snippets = snippets;
  }

  /** So many renders more are to come. */
  expect(renders: number): void {
    if (!this.shown) return;
    this.#total += renders;
    if (this.#bar) this.#bar.setTotal(this.#total);
    else this.#start();
  }

  #start(): void {
    const wide = (this.#output.columns ?? 80) >= 70;
    this.#bar = new cliProgress.SingleBar({
      stream: this.#output as NodeJS.WritableStream,
      format: `${wide ? '{bar} ' : ''}{value} of {total} renders, snippet {snippet} of {snippets}: {name}`,
      barCompleteChar: '━',
      barIncompleteChar: '─',
      barsize: 24,
      hideCursor: true,
      clearOnComplete: true,
      linewrap: false,
      gracefulExit: false,
    });
    this.#bar.start(this.#total, 0, this.#words());
  }

  begin(name: string): void {
    this.#name = name;
    this.#bar?.update(this.#words());
  }

  step(renders: number): void {
    this.#bar?.increment(renders, this.#words());
  }

  finish(): void {
    this.#done++;
  }

  /** A line of its own, above the bar. */
  note(text: string): void {
    if (!this.shown) return;
    this.#output.write(`${clean(text)}\n`);
  }

  stop(): void {
    this.#bar?.stop();
    this.#bar = null;
  }

  #words() {
    const snippet = Math.min(this.#done + 1, this.#snippets);
    return { name: clean(this.#name), snippet, snippets: this.#snippets };
  }
}
