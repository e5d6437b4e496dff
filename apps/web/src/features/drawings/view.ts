import type { View } from '../../shared/view';

export const drawingsView: View = {
  stage: 'shape',
  name: 'Drawings',
  help: 'Every drawing of the project, as its tool placed it or as it was made here. Open one to see and make links where the thing is drawn.',
  path: 'shape/drawings',
  looksThrough: true,
  load: async () => (await import('./DrawingsPage')).DrawingsPage,
};

export const newDrawingView: View = {
  stage: 'shape',
  name: 'New drawing',
  help: 'A drawing of what the project holds, laid out here. Keep it, place things by hand: it stays current by itself.',
  addresses: ['shape/drawings/new'],
  looksThrough: true,
  keys: [
    ['M', 'Dragging places shapes, or links them'],
    ['Ctrl with arrows', 'Move the chosen shape, while placing'],
  ],
  load: async () => (await import('./made/NewDrawingPage')).NewDrawingPage,
};

export const drawingView: View = {
  stage: 'shape',
  name: 'Drawing',
  help: 'A drawing beside a list: choose a shape to see what it is linked with, drag from one to the other to link.',
  addresses: ['shape/drawings/:drawing'],
  looksThrough: true,
  keys: [
    ['Arrow keys', 'Go from shape to shape'],
    ['Shift with arrows', 'Move the drawing'],
    ['+ −', 'Zoom; also Ctrl with the wheel'],
    ['0', 'Show all'],
    ['F', 'Find in the drawing'],
    ['L', 'Next shape with links'],
    ['Enter', 'Link the chosen shape with the row marked in the list'],
    ['O', 'Open the sheet of the chosen shape'],
    ['B', 'Boxes with links beside every shape that has some, or none'],
    ['T', 'Box with links beside the chosen shape, or none'],
    ['U', 'Next use of the chosen shape, where it is used in several places'],
    ['[ ]', 'Drawing before, drawing after'],
    ['Alt and drag', 'Select words in the drawing'],
    ['M', 'In drawings made here: dragging places shapes, or links them'],
    ['Ctrl with arrows', 'In drawings made here: move the chosen shape, while placing'],
  ],
  load: async () => (await import('./DrawingPage')).DrawingPage,
};
