import type { Collector } from '../collector.js';

export const collectScripts: Collector<'scripts'> = ({ hung, happened, reading }) => {
  const { dialogs, windows, navigations, console } = happened;
  const sounds = reading?.objects.sounds ?? [];
  return { hung, dialogs, windows, navigations, console, sounds };
};
