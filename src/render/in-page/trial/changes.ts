import type { Change } from '../../../core/trial/change.js';

/** Changes that were made to the page, and can be taken back. */
export class Changes {
  readonly #undo: (() => void)[] = [];

  /** All of them, or none where one cannot be. */
  make(changes: readonly Change[]): boolean {
    // From the end of a text to its start, so that places stay what they are.
    const ordered = [...changes].sort((a, b) => getStart(b) - getStart(a));
    const made = ordered.every((change) => this.#make(change));
    if (!made) this.takeBack();
    return made;
  }

  /** The page as it was, in the order from the last to the first. */
  takeBack(): void {
    for (let undo = this.#undo.pop(); undo; undo = this.#undo.pop()) undo();
  }

  #make(change: Change): boolean {
    const node = globalThis.mivketNotebook.nodes.get(change.id);
    if (!node) return false;
    if (change.do === 'attribute') {
      this.#setAttribute(node, change.name, change.value);
      return true;
    }
    if (change.do === 'wrap') return this.#wrap(node, change.style);
    return change.do === 'style' ? this.#setStyle(node, change) : this.#setText(node, change);
  }

  /** What would load or run anew where it is put elsewhere stays where it is. */
  #wrap(node: Element, style: string): boolean {
    const { page, own, idOf } = globalThis.mivketNotebook;
    const bare = own(node);
    const { parentNode } = bare;
    if (!parentNode || bare.querySelector(RUNNING) !== null) return false;
    const around = page.createElement('div');
    around.setAttribute('style', style);
    // It is none of the page's: what has a number is not noted as put in.
    idOf(around);
    this.#undo.push(() => around.replaceWith(bare));
    parentNode.insertBefore(around, bare);
    around.append(bare);
    return true;
  }

  #setAttribute(node: Element, name: string, value: string | null): void {
    const bare = globalThis.mivketNotebook.own(node);
    const before = bare.getAttribute(name);
    const set = (now: string | null) =>
      now === null ? bare.removeAttribute(name) : bare.setAttribute(name, now);
    this.#undo.push(() => set(before));
    set(value);
  }

  #setStyle(node: Element, { property, value }: Extract<Change, { do: 'style' }>): boolean {
    const bare = globalThis.mivketNotebook.own(node);
    if (!('style' in bare)) return false;
    const style = bare.style as CSSStyleDeclaration;
    const before = bare.getAttribute('style');
    this.#undo.push(() =>
      before === null ? bare.removeAttribute('style') : bare.setAttribute('style', before),
    );
    if (value === null) style.removeProperty(property);
    // A value that the browser does not know would be no change, or a removal.
    else if (!CSS.supports(property, value)) return false;
    else style.setProperty(property, value, style.getPropertyPriority(property));
    return true;
  }

  #setText(node: Element, { start, end, text }: Extract<Change, { do: 'text' }>): boolean {
    const before = node.textContent;
    if (end > before.length || (!/[{}]/.test(text) && !holds(text))) return false;
    this.#undo.push(() => (node.textContent = before));
    node.textContent = before.slice(0, start) + text + before.slice(end);
    return true;
  }
}

const RUNNING = 'iframe, embed, object, video, audio, script, canvas, dialog, :popover-open';

function getStart(change: Change): number {
  return change.do === 'text' ? change.start : -1;
}

/** Whether the browser knows each of the declarations in a text. */
function holds(text: string): boolean {
  if (text === '') return true;
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(`x{${text}}`);
  const rule = sheet.cssRules[0];
  const wanted = text.split(';').filter((one) => one.trim() !== '');
  return (
    rule instanceof CSSStyleRule &&
    wanted.every((one) => rule.style.getPropertyValue(one.split(':')[0]!.trim()) !== '')
  );
}
