/** Who the visitor's browser is: its version, and the language of the visitor. */
export interface Visitor {
  version: string;
  language: string;
}

/** The proxy that a page goes through, and what it asks to be shown. */
export interface Door {
  port: number;
  password: string;
}
