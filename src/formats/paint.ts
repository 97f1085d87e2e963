/** How text is coloured; each leaves the text as it is where there are no colours. */
export interface Paint {
  blocker(text: string): string;
  concern(text: string): string;
  advice(text: string): string;
  sound(text: string): string;
  strong(text: string): string;
  faint(text: string): string;
}
