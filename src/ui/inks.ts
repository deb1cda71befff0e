/** Paper and ink, light and dark: the component library's variables and ours, for pages with the library and without. */
export const inks = {
  light: {
    '--mantine-color-body': '#f7f2e7',
    '--mantine-color-text': '#23201a',
    '--mantine-color-dimmed': '#5c5445',
    '--mantine-color-placeholder': '#6f6655',
    '--mantine-color-default': '#fdfaf3',
    '--mantine-color-default-hover': '#f1ead9',
    '--mantine-color-default-border': '#b3a78d',
    '--mantine-color-error': '#8c2f1b',
    '--sheet': '#fdfaf3',
    '--rule': '#d5cab2',
    '--ink': '#23201a',
    '--ink-soft': '#5c5445',
    '--next': '#0d5f76',
    '--next-deep': '#0a4e61',
    '--next-soft': '#dcebef',
    '--on-next': '#fffdf8',
    '--wait': '#7a5300',
    '--wait-soft': '#f3e3bb',
  },
  dark: {
    '--mantine-color-body': '#1e1c18',
    '--mantine-color-text': '#ece4d4',
    '--mantine-color-dimmed': '#b8ad98',
    '--mantine-color-placeholder': '#a59a86',
    '--mantine-color-default': '#28251f',
    '--mantine-color-default-hover': '#343028',
    '--mantine-color-default-border': '#6d6455',
    '--mantine-color-error': '#f0a58f',
    '--sheet': '#25221d',
    '--rule': '#453f35',
    '--ink': '#ece4d4',
    '--ink-soft': '#b8ad98',
    '--next': '#7cc7d8',
    '--next-deep': '#9bd6e3',
    '--next-soft': '#1f3b43',
    '--on-next': '#0a2a33',
    '--wait': '#e6bf63',
    '--wait-soft': '#4a3a17',
  },
};

export const fontFamily = "'Atkinson Hyperlegible Next', system-ui, sans-serif";

/** The same as a style sheet, for a page that does without the component library. */
export const inkStyles = Object.entries(inks)
  .map(
    ([scheme, variables]) =>
      `:root[data-mantine-color-scheme='${scheme}']{${Object.entries({
        'color-scheme': scheme,
        '--mantine-font-family': fontFamily,
        '--mantine-font-family-headings': fontFamily,
        ...variables,
      })
        .map(([name, value]) => `${name}:${value}`)
        .join(';')}}`,
  )
  .join('');
