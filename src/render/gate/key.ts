import { createHash, generateKeyPairSync } from 'node:crypto';

/** The key of the gate's own end of TLS, and the mark by which the browser lets it through. */
export interface GateKey {
  /** PKCS #8, PEM. */
  private: string;
  /** SubjectPublicKeyInfo, PEM. */
  public: string;
  /** base64 SHA-256 of the public key (SubjectPublicKeyInfo). */
  spki: string;
}

/** Makes a key; at once, so that a browser can be started with its mark. */
export function makeKey(): GateKey {
  const pair = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  const der = pair.publicKey.export({ type: 'spki', format: 'der' });
  return {
    private: pair.privateKey.export({ type: 'pkcs8', format: 'pem' }) as string,
    public: pair.publicKey.export({ type: 'spki', format: 'pem' }) as string,
    spki: createHash('sha256').update(der).digest('base64'),
  };
}
