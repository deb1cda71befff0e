import styles from 'katex/dist/katex.min.css?url';

/** The styles and fonts of formulas: linked where they are needed, so that pages without maths do not fetch them. */
if (typeof document !== 'undefined' && !document.querySelector('link[data-katex]')) {
  const link = document.createElement('link');
  link.rel = 'stylesheet';
  link.href = styles;
  link.dataset.katex = '';
  document.head.append(link);
}
