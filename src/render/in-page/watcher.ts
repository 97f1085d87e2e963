import { watch } from './watch.js';

// Evaluated in the page's own world, before its scripts; nothing of it stays behind in sight.
watch();
