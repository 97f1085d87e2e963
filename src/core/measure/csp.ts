import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import parseContentSecurityPolicy from 'content-security-policy-parser';
import { flatMap } from '../lists.js';

/** A Content-Security-Policy: each directive with its sources (CSP 3, 2.2). The first of a name counts. */
export type Policy = ReadonlyMap<string, readonly string[]>;

/** The policies that a page's headers lay down: several are all in force. */
export function parsePolicies(headers: Readonly<Record<string, string>>): Policy[] {
  const given = Object.entries(headers).filter(([name]) => /^content-security-policy$/i.test(name));
  return flatMap(given, ([, value]) =>
    value.split(',').map((one) => parseContentSecurityPolicy(one)),
  ).filter(({ size }) => size > 0);
}

/** What stands for a directive that is not there, nearest first (CSP 3, 6.8.3). */
const FALLBACKS: Record<string, string[]> = {
  'script-src-elem': ['script-src', 'default-src'],
  'script-src-attr': ['script-src', 'default-src'],
  'style-src-elem': ['style-src', 'default-src'],
  'style-src-attr': ['style-src', 'default-src'],
  'worker-src': ['child-src', 'script-src', 'default-src'],
  'frame-src': ['child-src', 'default-src'],
};
const ALONE = new Set('form-action base-uri frame-ancestors sandbox report-to'.split(' '));

/** The directive that a policy decides something by: its own, or a wider one; null where nothing does. */
export function findDirective(policy: Policy, name: string): string | null {
  const wider = FALLBACKS[name] ?? (ALONE.has(name) ? [] : ['default-src']);
  return [name, ...wider].find((one) => policy.has(one)) ?? null;
}

/** Whether code in an attribute, such as onclick, may run (CSP 3, 4.2.3 and 8.5). */
export function allowsHandlers(policy: Policy): boolean {
  const directive = findDirective(policy, 'script-src-attr');
  if (directive === null) return true;
  const sources = (policy.get(directive) ?? []).map((one) => one.toLowerCase());
  const strict = sources.some((one) => /^'(nonce-|sha(256|384|512)-|strict-dynamic)/.test(one));
  const hashes = sources.includes("'unsafe-hashes'");
  return (sources.includes("'unsafe-inline'") && !strict) || hashes;
}

/** A directive as it has to read for more to be allowed. */
export function addSources(policy: Policy, directive: string, sources: readonly string[]): string {
  const kept = (policy.get(directive) ?? []).filter((one) => one.toLowerCase() !== "'none'");
  return [directive, ...new Set([...kept, ...sources])].join(' ');
}

/** Headers that let in a style of ours beside what they let in: only where they would refuse it, and by its hash. */
export function admitStyle(
  headers: Readonly<Record<string, string>>,
  css: string,
): Record<string, string> {
  const admit = (policy: Policy) => {
    if (!refusesOwnStyle(policy)) return formatPolicy(policy);
    const directive = findDirective(policy, 'style-src-elem')!;
    const own = directive === 'default-src' ? 'style-src' : directive;
    const sources = [...(policy.get(directive) ?? []), hashCode(css)];
    return formatPolicy(new Map([...policy, [own, sources.filter((one) => one !== "'none'")]]));
  };
  return Object.fromEntries(
    Object.entries(headers).map(([name, value]) => {
      const policies = parsePolicies({ [name]: value });
      return [name, policies.length > 0 ? policies.map(admit).join(', ') : value];
    }),
  );
}

function formatPolicy(policy: Policy): string {
  return [...policy].map(([name, sources]) => [name, ...sources].join(' ')).join('; ');
}

/** As a policy names a piece of code (CSP 3, 2.3.1 hash-source). */
export function hashCode(text: string): string {
  const bytes = sha256(utf8ToBytes(text));
  return `'sha256-${btoa(String.fromCharCode(...bytes))}'`;
}

/** Whether a style that stands in the page is let in by its hash only, or not at all (CSP 3, 6.7.3). */
function refusesOwnStyle(policy: Policy): boolean {
  const directive = findDirective(policy, 'style-src-elem');
  const sources = (directive && policy.get(directive)) || null;
  if (sources === null) return false;
  const strict = sources.some((one) => /^'(nonce-|sha(256|384|512)-)/i.test(one));
  return strict || !sources.some((one) => /^'unsafe-inline'$/i.test(one));
}
