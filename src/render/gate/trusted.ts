import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import * as tls from 'node:tls';
import { flatMap } from '../../core/lists.js';

/** Where systems keep the certificates that they trust, in one file. */
const PLACES = [
  '/etc/ssl/certs/ca-certificates.crt',
  '/etc/pki/tls/certs/ca-bundle.crt',
  '/etc/ssl/ca-bundle.pem',
  '/etc/ssl/cert.pem',
];

type Env = Record<string, string | undefined>;

/** Certificates that are trusted besides those that Node brings, such as a company's. */
export interface Trusted {
  /** Where they are from: a file, or `the system`. */
  source: string;
  /** PEM. */
  certificates: string[];
  /** Why the file could not be read; null where it was. */
  fault: string | null;
}

/** What else is trusted here: what `NODE_EXTRA_CA_CERTS` names, and what the system trusts (`SSL_CERT_FILE`, or its usual places). */
export function listTrusted(env: Env = process.env, places: readonly string[] = PLACES): Trusted[] {
  const named = [env.NODE_EXTRA_CA_CERTS, env.SSL_CERT_FILE].filter((path) => path !== undefined);
  const read = [...new Set(named)].filter(Boolean).map(readTrusted);
  if (env.SSL_CERT_FILE) return read;
  const usual = places.map(readTrusted).find(({ fault }) => fault === null);
  return [...read, ...(usual ? [usual] : askSystem())];
}

const CERTIFICATE = /-----BEGIN CERTIFICATE-----[^-]+-----END CERTIFICATE-----/g;

function readTrusted(source: string): Trusted {
  try {
    const certificates = readFileSync(source, 'utf8').match(CERTIFICATE) ?? [];
    const fault = certificates.length > 0 ? null : 'there is no certificate in it';
    return { source, certificates, fault };
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    return { source, certificates: [], fault: code ?? message };
  }
}

/** Where there is no such file, newer Nodes can ask the system itself. */
function askSystem(): Trusted[] {
  const { getCACertificates } = tls as { getCACertificates?: (type: 'system') => string[] };
  const certificates = getCACertificates?.('system') ?? [];
  return certificates.length > 0 ? [{ source: 'the system', certificates, fault: null }] : [];
}

interface Trust {
  secureContext?: tls.SecureContext;
}

let known: Trust | null = null;

/** What connections are to trust, as an option of theirs, made once; nothing where that is what Node does anyway. */
export function getTrust(): Trust {
  return (known ??= makeTrust(listTrusted()));
}

/** What is no certificate, whatever it says of itself, is left out, rather than that nothing is trusted. */
export function makeTrust(trusted: readonly Trusted[]): Trust {
  const own = new Set(tls.rootCertificates.map(toKey));
  const all = new Map(
    flatMap(trusted, ({ certificates }) => certificates.map((one) => [toKey(one), one] as const)),
  );
  const more = [...all]
    .filter(([key, one]) => !own.has(key) && isCertificate(one))
    .map(([, one]) => one);
  if (more.length === 0) return {};
  return { secureContext: tls.createSecureContext({ ca: [...tls.rootCertificates, ...more] }) };
}

/** Files break their lines at different columns. */
function toKey(pem: string): string {
  return pem.replace(/\s/g, '');
}

function isCertificate(pem: string): boolean {
  try {
    new X509Certificate(pem);
    return true;
  } catch {
    return false;
  }
}
