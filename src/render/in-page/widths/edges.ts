const LENGTH = /(\d+(?:\.\d+)?)(px|em|rem|ch)?/g;
/** What one of a unit comes to in conditions, px (Media Queries 5, 1.3: of the initial font). */
const UNITS: Record<string, number> = { px: 1, em: 16, rem: 16, ch: 8 };

/** Widths, px, that conditions of a page's styles name: there something may begin or end. */
export function listEdges(page: Document): number[] {
  const edges = new Set<number>();
  for (const sheet of page.styleSheets) addOf(sheet, edges);
  return [...edges];
}

function addOf(sheet: CSSStyleSheet | CSSGroupingRule, edges: Set<number>): void {
  if ('media' in sheet) addLengths((sheet.media as MediaList).mediaText, edges);
  for (const rule of listRules(sheet)) {
    if (!('cssRules' in rule)) continue;
    if ('conditionText' in rule) addLengths(String(rule.conditionText), edges);
    addOf(rule as CSSGroupingRule, edges);
  }
}

function addLengths(condition: string, edges: Set<number>): void {
  for (const [, number, unit] of condition.matchAll(LENGTH))
    edges.add(Math.round(Number(number) * (UNITS[unit ?? 'px'] ?? 1)));
}

/** Sheets of other origins do not show their rules. */
function listRules(sheet: CSSStyleSheet | CSSGroupingRule): CSSRule[] {
  try {
    return [...sheet.cssRules];
  } catch {
    return [];
  }
}
