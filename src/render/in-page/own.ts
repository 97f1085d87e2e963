/** A form gives its fields by their names, before its own properties; so does a document (HTML, 4.10.3). */
export function bare<T extends object>(real: T): T {
  return new Proxy(real, {
    get: (target, key) => {
      const value: unknown = Reflect.get(Object.getPrototypeOf(target) as object, key, target);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
}

/** An element with the properties that the standards give it. */
export function own<T extends Element>(node: T): T {
  // Elements of other documents have other constructors.
  const { HTMLFormElement: form = HTMLFormElement } = getWindow(node) ?? globalThis;
  return node instanceof form ? bare<T>(node) : node;
}

function getWindow({ ownerDocument }: Element): typeof globalThis | null {
  return ownerDocument === document ? null : ownerDocument.defaultView;
}
