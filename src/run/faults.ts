import { ToolError } from '../core/errors.js';

/** What went wrong while all else goes on: what could not be written, and where Mivket itself failed. */
export class Faults {
  readonly found: ToolError[] = [];
  readonly #onFault: (fault: ToolError) => void;

  /** @param onFault told of each */
  constructor(onFault: (fault: ToolError) => void = () => undefined) {
    this.#onFault = onFault;
  }

  /**
   * Whether it went well; a fault is kept, once each.
   * @param what is done, for what nobody reckoned with
   */
  async collect(work: Promise<unknown>, what: string): Promise<boolean> {
    try {
      await work;
      return true;
    } catch (error) {
      this.add(error, what);
      return false;
    }
  }

  /** @param what it was thrown by, for what nobody reckoned with */
  add(error: unknown, what: string): void {
    const fault = error instanceof ToolError ? error : makeFault(error, what);
    if (this.found.some(({ message }) => message === fault.message)) return;
    this.found.push(fault);
    this.#onFault(fault);
  }

  /** The exit code that the gravest leads to; null where all went well. */
  get exitCode(): number | null {
    const codes = this.found.map(({ exitCode }) => exitCode);
    return codes.length === 0 ? null : Math.max(...codes);
  }
}

function makeFault(error: unknown, what: string): ToolError {
  const said = error instanceof Error ? error.message : String(error);
  const words = `Mivket itself failed on ${what}: ${said.split('\n')[0]}.`;
  return new ToolError('mivket-failed', words, { cause: error });
}
