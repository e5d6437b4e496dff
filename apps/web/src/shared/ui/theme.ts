import '@fontsource-variable/commissioner';
import '@fontsource-variable/literata';
import '@fontsource-variable/literata/wght-italic.css';
import '@fontsource-variable/sometype-mono';
import './math-font.css';
import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

const pair = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } });

/** Chalk ground, ink text, moss accent; ochre, brick, slate and heather for states. All text pairs reach contrast AA. */
const config = defineConfig({
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Commissioner Variable', system-ui, sans-serif" },
        heading: { value: "'Commissioner Variable', system-ui, sans-serif" },
        serif: { value: "'Literata Variable', Georgia, serif" },
        mono: { value: "'Sometype Mono Variable', ui-monospace, monospace" },
      },
    },
    semanticTokens: {
      radii: { l1: { value: '2px' }, l2: { value: '3px' }, l3: { value: '4px' } },
      colors: {
        bg: {
          DEFAULT: pair('#f4f1e9', '#1a1c18'),
          subtle: pair('#ece7da', '#22251f'),
          muted: pair('#e4decf', '#2b2f27'),
          panel: pair('#fcfaf5', '#20231d'),
          emphasized: pair('#d9d1bd', '#3a3f34'),
        },
        fg: {
          DEFAULT: pair('#23241f', '#ebe7da'),
          muted: pair('#55584c', '#b9b6a6'),
          subtle: pair('#6b6c5f', '#a09e8f'),
          error: pair('#8f3424', '#ec9a86'),
          success: pair('#3f5c26', '#a5c77f'),
          warning: pair('#7a5710', '#dcb45c'),
        },
        border: { DEFAULT: pair('#d6cfbe', '#3b4035'), muted: pair('#e3ddcf', '#30342b'), emphasized: pair('#b8b09c', '#565c4d') },
        moss: {
          solid: pair('#4a6a2e', '#9cc073'),
          contrast: pair('#ffffff', '#171a12'),
          fg: pair('#3d5b23', '#a9cb83'),
          muted: pair('#dbe5cc', '#36452a'),
          subtle: pair('#e7eedb', '#2a3422'),
          emphasized: pair('#c3d4ab', '#475c37'),
          focusRing: pair('#6b8f47', '#9cc073'),
          border: pair('#a9bf8d', '#56703f'),
        },
        brick: {
          solid: pair('#9c3f2b', '#e08d77'),
          contrast: pair('#ffffff', '#1d1210'),
          fg: pair('#8f3424', '#ec9a86'),
          muted: pair('#f1d9d1', '#4d2b23'),
          subtle: pair('#f7e8e2', '#38231d'),
          emphasized: pair('#e3bcb0', '#6a3b30'),
          focusRing: pair('#b85a44', '#e08d77'),
          border: pair('#d7a192', '#7d4a3d'),
        },
        ochre: { muted: pair('#f1e1b4', '#4c4020') },
        heather: { fg: pair('#6b4a77', '#c9abd3'), solid: pair('#93749d', '#b292bd') },
        state: {
          verified: pair('#5b7f3a', '#8fb566'),
          partly: pair('#a3bb80', '#5f7a45'),
          stale: pair('#c0902f', '#d2a64b'),
          planned: pair('#7d8fa6', '#7f93ad'),
          unplanned: pair('#a9a394', '#6d6f63'),
          failing: pair('#a8442f', '#d9745b'),
          waived: pair('#93749d', '#b292bd'),
          notApplicable: pair('#d5cebe', '#43473c'),
        },
        hole: pair('#f4f1e9', '#1a1c18'),
        thread: pair('#5b7f3a', '#9cc073'),
        suspect: pair('#b07d1a', '#dcb45c'),
      },
    },
  },
  globalCss: {
    html: { colorPalette: 'moss', height: '100%' },
    body: { height: '100%', overflow: 'hidden', background: 'bg', color: 'fg', fontSize: '14px', lineHeight: '1.45' },
    '#root': { height: '100%', overflow: 'auto' },
    '*': { scrollbarWidth: 'thin', scrollbarColor: '{colors.border.emphasized} transparent' },
    '*:focus-visible': { outline: '2px solid', outlineColor: 'moss.focusRing', outlineOffset: '1px' },
    // What is dragged may be dropped here.
    '[data-drop]': { outline: '2px solid', outlineColor: 'moss.solid', outlineOffset: '-2px' },
    '.rich p, .rich ul, .rich ol, .rich table': { marginBottom: '0.5em' },
    '.rich ul': { listStyle: 'disc', paddingLeft: '1.4em' },
    '.rich ol': { listStyle: 'decimal', paddingLeft: '1.4em' },
    // A formula stands in its line.
    '.rich img': { display: 'inline-block', verticalAlign: 'middle', maxWidth: '100%', height: 'auto', marginBlock: '0.4em', borderRadius: '2px' },
    // Drawings in ink on nothing need paper.
    '.dark .rich img': { backgroundColor: '#f4f1e8' },
    '.rich img[src^="coomb-picture:"]': { display: 'inline-block', minHeight: '1.6em', border: '1px dashed', borderColor: 'border', color: 'fg.muted' },
    '.rich img[src^="coomb-picture:"]::before': { content: '"picture outside the file: "', fontSize: '0.85em' },
    '.rich [data-picture]::after': { content: '"[picture: " attr(data-picture) "]"', color: 'fg.muted', fontSize: '0.85em' },
    '.rich a[href^="coomb-file:"]': { textDecoration: 'underline dashed', pointerEvents: 'none', color: 'fg.muted' },
    '.rich td, .rich th': { border: '1px solid', borderColor: 'border', padding: '2px 8px', verticalAlign: 'top' },
    '.rich a': { textDecoration: 'underline' },
    '.rich a[data-item], .rich a[href^="coomb-item:"]': { textDecoration: 'none', borderBottom: '1px solid', borderColor: 'moss.solid', cursor: 'pointer' },
    '.rich pre': {
      fontFamily: 'mono',
      fontSize: '0.82em',
      lineHeight: 1.5,
      padding: '6px 10px',
      marginBottom: '0.5em',
      backgroundColor: 'bg.subtle',
      overflowX: 'auto',
    },
    '.rich pre code': { fontSize: 'inherit', backgroundColor: 'transparent' },
    '.rich figure': { margin: '0.4em 0 0.7em', maxWidth: 'max-content' },
    '.rich figcaption': { fontFamily: 'body', fontSize: '0.82em', color: 'fg.muted', minHeight: '1.4em' },
    '.rich math[display="block"]': { marginBlock: '0.4em', overflowX: 'auto', overflowY: 'hidden' },
    '.rich annotation': { display: 'none' },
    '.ProseMirror figcaption:empty::before, .ProseMirror figcaption:has(> br:only-child)::before': {
      content: '"Caption"',
      color: 'fg.subtle',
      float: 'left',
      height: 0,
    },
    '.ProseMirror math.ProseMirror-selectednode, .ProseMirror figure.ProseMirror-selectednode': { outline: '2px solid', outlineColor: 'moss.solid' },
    '.ProseMirror .selectedCell': { backgroundColor: 'moss.subtle' },
    '::highlight(coomb-clipped)': { backgroundColor: 'moss.muted' },
    '::highlight(coomb-phrase)': { backgroundColor: 'ochre.muted' },
    '.rich ins': { textDecoration: 'underline', textDecorationColor: 'moss.solid', backgroundColor: 'moss.subtle' },
    '.rich del': { textDecoration: 'line-through', color: 'brick.fg' },
    '::highlight(coomb-selected)': { backgroundColor: 'moss.solid', color: 'bg.panel' },
  },
});

export const system = createSystem(defaultConfig, config);
