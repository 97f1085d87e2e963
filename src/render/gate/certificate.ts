import { generate } from 'selfsigned';
import { makeKey, type GateKey } from './key.js';

/** A throwaway certificate for the gate's own end of TLS, and its key; both PEM. */
export interface GateCertificate {
  key: string;
  cert: string;
}

/**
 * Makes a certificate. It lives as long as the run; the names on it need not match.
 * What makes it takes a while to load: for the gates' thread, while the browser starts.
 */
export async function makeCertificate(key: GateKey = makeKey()): Promise<GateCertificate> {
  const made = await generate([{ name: 'commonName', value: 'gate.example' }], {
    keyPair: { privateKey: key.private, publicKey: key.public },
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + 7 * 24 * 3600 * 1000),
  });
  return { key: made.private, cert: made.cert };
}
