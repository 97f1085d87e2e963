/**
 * One table of everything that can be told to a user as an error: the exit code it leads to, and what to do,
 * where the sentence itself does not say that already. Of a file that is read as a whole all mistakes are told, each
 * on a line.
 */
const TABLE = {
  'bad-option': { exit: 2, remedy: '' },
  'bad-input': { exit: 2, remedy: '' },
  'bad-house': { exit: 2, remedy: '', each: 'line' },
  'bad-answers': { exit: 2, remedy: '', each: 'line' },
  'bad-proxy': { exit: 2, remedy: '' },
  'bad-recording': { exit: 2, remedy: 'Give an HTTP Archive (HAR) 1.2.' },
  'bad-run': { exit: 2, remedy: 'Give a folder that `mivket audit --keep` made.' },
  'unknown-slot': { exit: 2, remedy: '' },
  'unknown-finding': { exit: 2, remedy: '' },
  'cannot-write': { exit: 2, remedy: 'Choose a place that can be written.' },
  'no-browser': { exit: 3, remedy: 'Install Chrome, Chromium or Edge, or give --browser PATH.' },
  'browser-failed': {
    exit: 3,
    remedy: 'Try another browser with --browser PATH or --browser system.',
  },
  'nothing-rendered-at-all': { exit: 3, remedy: 'Run again; if it stays, give --browser PATH.' },
  'mivket-failed': { exit: 4, remedy: 'Please report it: all that was found besides stands.' },
} as const;

export type ErrorCode = keyof typeof TABLE;

/** A complaint meant for the user: one clear sentence, a stable code and the exit code it leads to. */
export class ToolError extends Error {
  readonly code: ErrorCode;
  readonly exitCode: number;

  constructor(code: ErrorCode, message: string, options?: { cause?: unknown }) {
    super(message, options);
    this.name = 'ToolError';
    this.code = code;
    this.exitCode = TABLE[code].exit;
  }

  /** What is wrong, one thing each. */
  get sentences(): string[] {
    return 'each' in TABLE[this.code] ? this.message.split('\n') : [this.message];
  }

  /** What the user can do about it; '' where the message says it. */
  get remedy(): string {
    return TABLE[this.code].remedy;
  }
}

/** What was given cannot be taken. */
export function badInput(message: string): ToolError {
  return new ToolError('bad-input', message);
}
