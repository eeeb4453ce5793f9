/**
 * The application's colours where no class can carry them: drawings, canvases, scenes and charts. The same as those of
 * the theme in `index.css`, by a test.
 */
export const PALETTE = {
  porcelain: '#f5f3ef',
  leaf: '#fffefb',
  hair: '#ddd8cf',
  ink: '#1d2428',
  ink2: '#566068',
  ink3: '#737b81',
  plum: '#5d2a5a',
  plumSoft: '#efe6ee',
  bench: '#7b7b7b',
  added: '#2a6fb5',
  removed: '#d98324',
  removedInk: '#9a5408',
  stop: '#a8261d',
  white: '#ffffff',
} as const;
