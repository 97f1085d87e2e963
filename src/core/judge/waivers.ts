import picomatch from 'picomatch';
import type { House } from '../house/house.js';
import type { Finding } from '../run.js';
import type { Snippet } from '../snippet.js';

/**
 * The waiver that the house grants this finding, or null.
 * @param today the day it is judged on, `YYYY-MM-DD`; a waiver holds through its last day.
 */
export function findWaiver(
  house: House,
  id: string,
  snippet: Snippet,
  today: string,
): Finding['waiver'] {
  const fitting = house.waivers.filter(
    (waiver) =>
      waiver.finding === id && (waiver.snippet === undefined || fits(waiver.snippet, snippet)),
  );
  const waiver = fitting.find((candidate) => candidate.until >= today) ?? fitting[0];
  if (!waiver) return null;
  return {
    reason: waiver.reason,
    until: waiver.until,
    by: waiver.by ?? null,
    expired: waiver.until < today,
  };
}

function fits(pattern: string, snippet: Snippet): boolean {
  const matches = picomatch(pattern, { basename: !pattern.includes('/') });
  return [snippet.name, snippet.path].some(
    (text) => text !== null && (text === pattern || matches(text)),
  );
}
