/** What something is asked for as (Fetch, 2.2.5 “destination”, as far as engines tell them apart). */
export const FILE_TYPES = [
  ...(['document', 'style', 'script', 'picture', 'font', 'film', 'track'] as const),
  ...(['data', 'socket', 'stream', 'ping', 'prefetch', 'manifest', 'other'] as const),
] as const;
export type FileType = (typeof FILE_TYPES)[number];
