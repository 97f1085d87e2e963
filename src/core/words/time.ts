/** The day of a moment, UTC, `YYYY-MM-DD` (ISO 8601). */
export function getDay(moment: Date): string {
  return moment.toISOString().slice(0, 10);
}

/** The day and minute of a moment (ISO 8601), UTC. */
export function formatMinute(moment: string): string {
  return new Date(moment).toISOString().slice(0, 16).replace('T', ' ');
}
