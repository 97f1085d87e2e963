import type { Exchange } from '../../src/core/recording/exchange.js';

/** An exchange with what a test says of it; `text` is the answer's body. */
export function makeExchange({
  text = '',
  ...given
}: Partial<Exchange> & { text?: string }): Exchange {
  return {
    load: { snippet: '', view: '' },
    method: 'GET',
    url: 'https://tally.example/',
    requestHeaders: [],
    requestBody: null,
    startedAt: '2026-01-01T00:00:00.000Z',
    waited: 3,
    received: 2,
    status: 200,
    headers: [['content-type', 'text/javascript']],
    body: btoa(text),
    coded: null,
    size: text.length,
    left: null,
    refused: null,
    ...given,
  };
}
