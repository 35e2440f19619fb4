// The theme: paper ground, ink text, damson for action, teal for growth and live, amber for attention, brick for
// refused. Every colour of the application is a token of this file; those of values are in files, too.
import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import * as theme from '@chakra-ui/react/theme';
import { itemInks } from '@dellum/contract';
import { recipes, slotRecipes } from './recipes.js';

const pair = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } });

/** A palette as Chakra's recipes use it. */
const palette = (solid: [string, string], soft: [string, string], contrast: [string, string]) => ({
  solid: pair(...solid),
  contrast: pair(...contrast),
  fg: pair(...solid),
  subtle: pair(...soft),
  muted: pair(...soft),
  emphasized: pair(...soft),
  focusRing: pair(...solid),
  border: pair(...solid),
});

const onSolid: [string, string] = ['#FFFDF8', '#1B161E'];

/** What Chakra begins with, without the recipes of components that are not used. */
const base = defineConfig({
  preflight: true,
  cssVarsPrefix: theme.cssVarsPrefix,
  cssVarsRoot: theme.cssVarsRoot,
  globalCss: theme.globalCss,
  theme: {
    breakpoints: theme.breakpoints,
    keyframes: theme.keyframes,
    tokens: theme.tokens,
    semanticTokens: theme.semanticTokens,
    textStyles: theme.textStyles,
    layerStyles: theme.layerStyles,
    animationStyles: theme.animationStyles,
    recipes,
    slotRecipes,
  },
});

const config = defineConfig({
  globalCss: {
    'html, body, #root': { height: '100%' },
    html: { colorPalette: 'damson' },
    body: { bg: 'paper', color: 'ink', fontFamily: 'body', fontSize: 'sm', lineHeight: '1.5' },
    '*': { scrollbarWidth: 'thin', scrollbarColor: '{colors.line} transparent' },
    mark: { bg: 'transparent', color: 'damson.fg', fontWeight: 'bold', textDecoration: 'underline 2px', textUnderlineOffset: '3px' },
    '.sr-only': {
      position: 'absolute',
      w: '1px',
      h: '1px',
      p: '0',
      m: '-1px',
      overflow: 'hidden',
      clipPath: 'inset(50%)',
      whiteSpace: 'nowrap',
      borderWidth: '0',
    },
    // On paper there is the page alone, as long as it is.
    'nav, header, aside, .not-printed': { _print: { display: 'none !important' } },
    '.only-printed': { display: 'none', _print: { display: 'flex' } },
    'html, body, #root, #root *': { _print: { height: 'auto !important', maxHeight: 'none !important', overflow: 'visible !important' } },
    '::selection': { bg: 'damson.subtle', color: 'ink' },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        mono: { value: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace" },
      },
      fontSizes: {
        '2xs': { value: '0.6875rem' },
        xs: { value: '0.75rem' },
        sm: { value: '0.8125rem' },
        md: { value: '0.9375rem' },
        lg: { value: '1.0625rem' },
        xl: { value: '1.375rem' },
      },
      radii: { l1: { value: '5px' }, l2: { value: '7px' }, l3: { value: '9px' } },
    },
    semanticTokens: {
      colors: {
        paper: pair('#F6F1E7', '#1B161E'),
        card: pair('#FFFDF8', '#241D28'),
        deep: pair('#EBE3D4', '#15111A'),
        line: pair('#DED4C2', '#463B4C'),
        lineSoft: pair('#EDE6D8', '#332A39'),
        ink: pair('#29222E', '#F1EAF0'),
        inkSoft: pair('#6B6072', '#B9ADBF'),
        inkFaint: pair('#756A7B', '#A598AC'),
        damson: palette(['#6E2A5A', '#E3A4CF'], ['#F3E6EE', '#43263B'], onSolid),
        growth: palette(['#0E6E66', '#6CCBBF'], ['#DCEFEA', '#17413D'], onSolid),
        amber: palette(['#855408', '#E9B75A'], ['#FAEBCB', '#453413'], onSolid),
        brick: palette(['#9E3526', '#F0998A'], ['#F7DFD8', '#4A231D'], onSolid),
        item: Object.fromEntries(Object.entries(itemInks).map(([colour, inks]) => [colour, pair(...inks)])),
        slate: palette(['#6B6072', '#B9ADBF'], ['#EBE3D4', '#3A3140'], onSolid),
        bg: {
          DEFAULT: pair('#FFFDF8', '#241D28'),
          subtle: pair('#F6F1E7', '#1B161E'),
          muted: pair('#EBE3D4', '#332A39'),
          panel: pair('#FFFDF8', '#241D28'),
          error: pair('#F7DFD8', '#4A231D'),
        },
        fg: {
          DEFAULT: pair('#29222E', '#F1EAF0'),
          muted: pair('#6B6072', '#B9ADBF'),
          subtle: pair('#756A7B', '#A598AC'),
          error: pair('#9E3526', '#F0998A'),
        },
        border: { DEFAULT: pair('#DED4C2', '#463B4C'), muted: pair('#EDE6D8', '#332A39'), error: pair('#9E3526', '#F0998A') },
      },
      shadows: { lifted: pair('0 6px 18px rgba(41, 34, 46, 0.16)', '0 6px 20px rgba(0, 0, 0, 0.55)') },
    },
    // Most buttons stand in a row of others, beside what they act on.
    recipes: { button: { defaultVariants: { size: 'xs', variant: 'outline' } } },
  },
});

export const system = createSystem(defaultBaseConfig, base, config);
