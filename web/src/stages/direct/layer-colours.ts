import type { LayerName } from '@radiant/core';

/** How layers are filled in drawings and tables: lightness tells them apart too, where hues don't. */
export const LAYER_COLOURS: Readonly<Record<LayerName, string>> = {
  enamel: '#cfe1f3',
  dentin: '#e3bd84',
  'dentin-behind': '#c99a58',
  shell: '#8d6a9a',
  wall: '#7fb3a6',
};
export const TOOTH_COLOUR = '#efe9dd';
