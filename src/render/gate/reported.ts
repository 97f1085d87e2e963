import type { Device } from '../../core/evidence.js';

/** Policies that a page is served with to be told of what they are about, and what the visitor is asked for then. */
export const REPORTED: Record<string, Device> = {
  camera: 'camera',
  microphone: 'microphone',
  midi: 'midi',
  'clipboard-read': 'clipboard',
  'window-management': 'screens',
};

/** Permissions Policy, 6.2: what stands in a header that only reports changes nothing. */
const NAME = 'permissions-policy-report-only';
const POLICY = Object.keys(REPORTED)
  .map((name) => `${name}=()`)
  .join(', ');

/** A page's own headers, and that one. */
export function askForReports(headers: Record<string, string>): Record<string, string> {
  const all = Object.entries(headers);
  const own = all.find(([name]) => name.toLowerCase() === NAME);
  const others = all.filter((one) => one !== own);
  return { ...Object.fromEntries(others), [NAME]: own ? `${own[1]}, ${POLICY}` : POLICY };
}
