/** Days on which stable versions of Chromium came out; what lies between is reckoned. */
const RELEASES: [major: number, day: string][] = [
  [100, '2022-03-29'],
  [110, '2023-02-07'],
  [120, '2023-12-05'],
  [130, '2024-10-15'],
  [140, '2025-09-02'],
];
const DAY = 24 * 3600 * 1000;
/** The mean of the years before: newer versions are reckoned on by it, days. */
const APART = 32;

/** The major version in what a browser says of itself; null where there is no number. */
export function getMajor(said: string): number | null {
  const major = /(\d+)\.\d+/.exec(said)?.[1];
  return major === undefined ? null : Number(major);
}

/** About when a version of Chromium came out; null where there is no number to go by. */
export function getReleaseDay(version: string): Date | null {
  const major = getMajor(version);
  if (major === null || major < RELEASES[0]![0]) return null;
  const i = RELEASES.findLastIndex(([known]) => known <= major);
  const [before, day] = RELEASES[i]!;
  const after = RELEASES[i + 1];
  const step = after ? (Date.parse(after[1]) - Date.parse(day)) / (after[0] - before) : APART * DAY;
  return new Date(Date.parse(day) + (major - before) * step);
}

/** `7 months`, for a time that went by; never less than one. */
export function formatAge(from: Date, to: Date): string {
  const months = Math.max(1, Math.round((to.getTime() - from.getTime()) / (30.4 * DAY)));
  if (months < 24) return `${months} ${months === 1 ? 'month' : 'months'}`;
  return `${Math.round(months / 12)} years`;
}
