/** Marks the places in a host page where snippets go. */
export const SLOT_ATTRIBUTE = 'data-mivket-slot';
