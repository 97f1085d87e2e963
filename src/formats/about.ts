/** What the value of an option may be: one of these, a file, or any words; null where it takes none. */
export type Takes = readonly string[] | 'file' | 'words' | null;

/** An option as it is described. */
export interface OptionAbout {
  /** `--format` */
  long: string;
  /** `--format <name>` */
  flags: string;
  about: string;
  takes: Takes;
}

/** A command as it is described. */
export interface CommandAbout {
  name: string;
  about: string;
  /** What stands behind its name: `[options] [inputs...]`. */
  usage: string;
  /** What its arguments may be. */
  takes: Takes;
  options: readonly OptionAbout[];
}

/** The program as it is described, for shells and manuals. */
export interface ProgramAbout {
  name: string;
  version: string;
  about: string;
  commands: readonly CommandAbout[];
  /** What each exit code means. */
  exits: readonly (readonly [code: number, meaning: string])[];
}
