import {
  Button,
  Checkbox,
  createTheme,
  Radio,
  Switch,
  type CSSVariablesResolver,
  type MantineColorsTuple,
} from '@mantine/core';
import { fontFamily, inks } from './inks';

/** The one strong colour: the next thing to do, and nothing else. */
const petrol: MantineColorsTuple = [
  '#e8f4f7', '#d3e8ee', '#a9d2dd', '#7cc7d8', '#57aec3', '#3594ab', '#1c7a92', '#0d5f76', '#0a4e61', '#073b4a',
]; // prettier-ignore

/** The quiet one: what waits. */
const ochre: MantineColorsTuple = [
  '#fdf5e2', '#f8e9c4', '#f0d594', '#e6bf63', '#d9a83c', '#c08f25', '#a37414', '#835a00', '#684700', '#4c3400',
]; // prettier-ignore

const warmGray: MantineColorsTuple = [
  '#fdfaf3', '#f7f2e7', '#ece4d3', '#dcd2bd', '#c4b89f', '#a0957f', '#7d7361', '#5c5445', '#3d372d', '#23201a',
]; // prettier-ignore

const warmDark: MantineColorsTuple = [
  '#ece4d4', '#d6ccb9', '#b8ad98', '#8d8371', '#5d5548', '#454036', '#2f2b25', '#1e1c18', '#171512', '#100f0d',
]; // prettier-ignore

export const theme = createTheme({
  primaryColor: 'petrol',
  primaryShade: { light: 7, dark: 3 },
  autoContrast: true,
  luminanceThreshold: 0.35,
  colors: { petrol, ochre, gray: warmGray, dark: warmDark },
  white: '#fffdf8',
  black: '#23201a',
  fontFamily,
  fontFamilyMonospace: 'ui-monospace, monospace',
  headings: { fontFamily, fontWeight: '700' },
  fontSizes: { xs: '0.8125rem', sm: '0.875rem', md: '1rem', lg: '1.125rem', xl: '1.375rem' },
  defaultRadius: 'xs',
  focusRing: 'auto',
  respectReducedMotion: true,
  cursorType: 'pointer',
  components: {
    Button: Button.extend({
      defaultProps: { variant: 'default', size: 'compact-md' },
      vars: (_, { variant }) =>
        variant === 'filled'
          ? {
              root: {
                '--button-bg': 'var(--next)',
                '--button-hover': 'var(--next-deep)',
                '--button-color': 'var(--on-next)',
              },
            }
          : { root: {} },
    }),
    // Ink, not the strong colour: that one is for the next thing to do.
    Checkbox: Checkbox.extend({
      defaultProps: { color: 'var(--ink)', iconColor: 'var(--mantine-color-body)' },
    }),
    Radio: Radio.extend({ defaultProps: { color: 'var(--ink)', iconColor: 'var(--mantine-color-body)' } }),
    Switch: Switch.extend({ defaultProps: { color: 'var(--ink)' } }),
  },
});

/** Paper and ink, as the component library is told of them. */
export const cssVariables: CSSVariablesResolver = () => ({ variables: {}, ...inks });
