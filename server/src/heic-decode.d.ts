/** What the package gives; it comes without types. */
declare module 'heic-decode' {
  interface Decoded {
    readonly width: number;
    readonly height: number;
    /** RGBA, row by row. */
    readonly data: Uint8ClampedArray;
  }
  interface Image {
    readonly width: number;
    readonly height: number;
    decode(): Promise<Decoded>;
  }
  function decode(input: { readonly buffer: Uint8Array }): Promise<Decoded>;
  namespace decode {
    /** Every picture of a file, not decoded yet; given free by `dispose`. */
    function all(input: { readonly buffer: Uint8Array }): Promise<Image[] & { dispose(): void }>;
  }
  export default decode;
}
