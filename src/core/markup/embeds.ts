import { FRAMES } from '../standards/elements.js';
import { getAttribute, type MarkupAttribute, type MarkupElement } from './markup.js';

/** Where elements that bring something in have its address. */
const SOURCES: Record<string, string> = {
  iframe: 'src',
  embed: 'src',
  object: 'data',
  video: 'src',
  audio: 'src',
  script: 'src',
};

/** The attribute that says what a frame shows; null where it has none, and for all that is no frame. */
export function getFrameSource(element: MarkupElement): MarkupAttribute | null {
  return FRAMES.has(element.name) ? getAttribute(element, SOURCES[element.name]!) : null;
}

/** The addresses by which a frame, a player or a script brings something in; of a player those of its sources too. */
export function listSources(element: MarkupElement): MarkupAttribute[] {
  const own = getAttribute(element, SOURCES[element.name] ?? '');
  const players = element.name === 'video' || element.name === 'audio';
  const inside = players ? element.children.filter(({ name }) => name === 'source') : [];
  return [own, ...inside.map((source) => getAttribute(source, 'src'))].filter(
    (one): one is MarkupAttribute => one !== null && one.value.trim() !== '',
  );
}
