/** Elements that never show anything themselves. */
export const UNSEEN: readonly string[] = [
  'script',
  'style',
  'link',
  'meta',
  'noscript',
  'template',
  'base',
  'title',
];
