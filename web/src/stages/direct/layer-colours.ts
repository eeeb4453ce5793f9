import type { LayerName, ToothPlace } from '@radiant/core';

/** How layers are filled in drawings and tables: lightness tells them apart too, where hues don't. */
export const LAYER_COLOURS: Readonly<Record<LayerName, string>> = {
  enamel: '#cfe1f3',
  dentin: '#e3bd84',
  'dentin-behind': '#c99a58',
  shell: '#8d6a9a',
  wall: '#7fb3a6',
};
export const TOOTH_COLOUR = '#efe9dd';
/** The core lies within the tooth. */
export const CORE_COLOUR = '#b0763f';

/** What is worked on the tooth itself. */
export const PLACE_COLOURS: Readonly<Record<ToothPlace, string>> = {
  tooth: '#f3e7ca',
  'worn face': '#e6cf9c',
  'dentin that is troughed': '#c07f37',
  bevel: '#a9c3de',
  break: '#c9808f',
  dent: '#c9808f',
};
