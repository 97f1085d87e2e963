/**
 * Turns Ctrl-C and a plain kill into a signal to stop in good order. A second Ctrl-C ends at once;
 * the browser goes with us either way.
 */
export function watchInterrupt(): { signal: AbortSignal; stop: () => void } {
  const controller = new AbortController();
  const onSignal = () => {
    if (controller.signal.aborted) process.exit(130);
    controller.abort();
  };
  const signals = ['SIGINT', 'SIGTERM', 'SIGHUP'] as const;
  for (const name of signals) process.on(name, onSignal);
  return {
    signal: controller.signal,
    stop: () => {
      for (const name of signals) process.off(name, onSignal);
    },
  };
}
