import type { Refusal } from '../evidence.js';

/** Which load a request was made in. */
export interface Load {
  /** The snippet's name; '' for the page without one. */
  snippet: string;
  /** Slot and viewport, in words that name the load within its snippet. */
  view: string;
}

export type Header = [name: string, value: string];

/** Why the bytes of an answer are not kept. */
export type LeftOut = 'media' | 'too-large';

/** One request and what came of it, as the gate saw them. */
export interface Exchange {
  load: Load;
  method: string;
  url: string;
  requestHeaders: Header[];
  /** base64; null where nothing was sent. */
  requestBody: string | null;
  /** ISO 8601. */
  startedAt: string;
  /** From asking to the first byte of the answer, and from there to its end, ms. */
  waited: number;
  received: number;
  /** 0 where no answer came. */
  status: number;
  headers: Header[];
  /** The answer's bytes with content codings (RFC 9110, 8.4) taken off, base64; null where they are not kept. */
  body: string | null;
  /** The same bytes as they came, where a coding was on them. */
  coded: string | null;
  /** Bytes of the answer's body over the wire. */
  size: number;
  left: LeftOut | null;
  /** Why the gate refused it, or what kept the answer away. */
  refused: Refusal | null;
}

/** Larger answers are recorded without their bytes. */
export const LARGEST_BODY = 10_000_000;

const MEDIA = /^(video|audio)\/|^application\/(ogg|vnd\.ms-sstr)/i;

/** Whether a media type is that of film or sound. Lists of pieces (HLS, DASH) are texts, not media. */
export function isMediaType(type: string): boolean {
  return MEDIA.test(type) && !/mpegurl/i.test(type);
}

/** The first header of a name, in any case; null where there is none. */
export function getHeader(headers: readonly Header[], name: string): string | null {
  return headers.find(([key]) => key.toLowerCase() === name)?.[1] ?? null;
}
