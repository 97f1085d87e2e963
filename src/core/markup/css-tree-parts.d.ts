// The whole of css-tree builds a lexer of all of CSS when it is loaded; these two parts do without.
declare module 'css-tree/parser' {
  import { parse } from 'css-tree';
  export default parse;
}
declare module 'css-tree/walker' {
  import { walk } from 'css-tree';
  export default walk;
}
