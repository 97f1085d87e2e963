import { createHash, createPublicKey } from 'node:crypto';
import { generate } from 'selfsigned';

/** A throwaway certificate for the gate's own end of TLS, and the mark by which the browser lets it through. */
export interface GateCertificate {
  key: string;
  cert: string;
  /** base64 SHA-256 of the public key (SubjectPublicKeyInfo). */
  spki: string;
}

/** Makes one. It lives as long as the run; the names on it need not match. */
export async function makeCertificate(): Promise<GateCertificate> {
  const made = await generate([{ name: 'commonName', value: 'gate.example' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + 7 * 24 * 3600 * 1000),
  });
  const der = createPublicKey(made.public).export({ type: 'spki', format: 'der' });
  const spki = createHash('sha256').update(der).digest('base64');
  return { key: made.private, cert: made.cert, spki };
}
