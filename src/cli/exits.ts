/** What each exit code means. */
export const EXITS = [
  [0, 'clear'],
  [1, 'hold'],
  [2, 'bad usage or input'],
  [3, 'unsure or nothing rendered'],
  [4, 'Mivket itself failed'],
  [130, 'interrupted'],
] as const;
