import './katexStyles';

/** KaTeX with its styles and fonts, in a file of its own that only pages with maths load. */
export { default } from 'katex';
