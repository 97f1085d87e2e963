import type { Fact } from '../check.js';

/** Whether a fact is of the address that a cause is about, by http or by https. */
export function isOfAddress({ data }: Fact<unknown>, { address }: { address: string }): boolean {
  const other = (data as { address?: unknown }).address;
  return typeof other === 'string' && withoutScheme(other) === withoutScheme(address);
}

function withoutScheme(address: string): string {
  return address.replace(/^https?:/i, '');
}
