import type { Collector } from '../collector.js';

export const collectScripts: Collector<'scripts'> = ({ hung, happened, reading }) => {
  const { dialogs, windows, navigations, console } = happened;
  const { sounds = [], writers = [], waits = [] } = reading?.objects ?? {};
  return { hung, dialogs, windows, navigations, console, sounds, writers, waits };
};
