declare module 'culori' {
  interface OfLab {
    readonly mode: 'lab65';
    readonly l: number;
    readonly a: number;
    readonly b: number;
  }
  interface OfRgb {
    readonly mode: 'rgb';
    readonly r: number;
    readonly g: number;
    readonly b: number;
  }
  export function converter(mode: 'rgb'): (p: OfLab) => OfRgb | undefined;
  export function converter(mode: 'lab65'): (p: OfRgb) => OfLab | undefined;
  export const differenceCiede2000: () => (p: OfLab, q: OfLab) => number;
}
declare module 'spectral.js' {
  class Color {
    /** @param r reflectance from 380 to 750 nm by 10 */
    constructor(r: number[]);
    readonly XYZ: readonly [number, number, number];
  }
  const spectral: { Color: typeof Color };
  export default spectral;
}
