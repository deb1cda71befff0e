/** What text is typed into, as a selector: there the keys of text are the field’s own. Boxes and buttons are inputs, too. */
export const textFields =
  'textarea, [contenteditable="true"], input:not([type="checkbox"], [type="radio"], [type="button"])';
