/**
 * The two text classes that every JavaScript engine has (WHATWG Encoding); core uses nothing else of its surroundings.
 */
declare class TextDecoder {
  constructor(label?: string);
  decode(bytes: Uint8Array): string;
}
declare class TextEncoder {
  encode(text: string): Uint8Array;
}
