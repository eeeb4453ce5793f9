declare module 'comlink/dist/esm/node-adapter.mjs' {
  import type { Endpoint } from 'comlink';

  /** Lets Node's message ports stand for a worker. */
  export default function nodeEndpoint(port: unknown): Endpoint;
}
