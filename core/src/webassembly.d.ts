/** What core needs of WebAssembly (W3C), which every JavaScript engine has. */
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array);
  }
  class Memory {
    constructor(size: { initial: number });
    readonly buffer: ArrayBuffer;
  }
  class Instance {
    constructor(module: Module, imports: { env: { memory: Memory } });
    readonly exports: Record<string, unknown>;
  }
}
/** Base64 to one character a byte (WHATWG HTML), in every JavaScript engine too. */
declare function atob(text: string): string;
