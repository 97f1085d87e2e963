/** What padding and border take up on one side, px. */
export function getEdge(style: CSSStyleDeclaration, side: string): number {
  return (
    parseFloat(style.getPropertyValue(`padding-${side}`)) +
    parseFloat(style.getPropertyValue(`border-${side}-width`))
  );
}

/** Whether what overflows is cut off or scrolled there. */
export function cuts(overflow: string): boolean {
  return overflow !== 'visible';
}

/** Whether an element's own overflow, or a containment, cuts off what stands in it. */
export function clips(style: CSSStyleDeclaration): boolean {
  const contains =
    style.display !== 'inline' &&
    (/paint|strict|content/.test(style.contain) || style.contentVisibility === 'auto');
  return cuts(style.overflowX) || contains;
}
