import type { RawElement } from '../in-page/elements.js';

const LONGEST = 6;

/** Selectors to find elements by that have no place in the source. */
export class Selectors {
  #byId: Map<number, RawElement>;
  #children = new Map<number | null, RawElement[]>();

  constructor(elements: readonly RawElement[]) {
    this.#byId = new Map(elements.map((element) => [element.id, element]));
    for (const element of elements) {
      const siblings = this.#children.get(element.parent);
      if (siblings) siblings.push(element);
      else this.#children.set(element.parent, [element]);
    }
  }

  get(element: RawElement): string {
    const steps: string[] = [];
    for (
      let at: RawElement | undefined = element;
      at && steps.length < LONGEST;
      at = this.#byId.get(at.parent ?? -1)
    ) {
      steps.unshift(this.#getStep(at));
      if (at.name || at.tag === 'body') break;
    }
    return steps.join(' > ');
  }

  #getStep({ tag, name, parent, id }: RawElement): string {
    if (/^[a-z][\w-]*$/i.test(name)) return `#${name}`;
    const alike = (this.#children.get(parent) ?? []).filter((other) => other.tag === tag);
    return alike.length > 1
      ? `${tag}:nth-of-type(${alike.findIndex((other) => other.id === id) + 1})`
      : tag;
  }
}
