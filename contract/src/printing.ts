import type { PrintCheck } from '@radiant/core';

/** What the simulated printer says of a file that it was sent; it prints nothing. */
export interface PrinterSays {
  readonly printer: string;
  readonly bodies: number;
  readonly title: string;
  /** Why it would not begin; empty where it would. */
  readonly refused: readonly string[];
  /** Nothing where the file holds no body that can be looked at. */
  readonly check?: PrintCheck;
}

/** How a guide sits and goes on. */
export interface GuideFacts {
  /** Teeth that stay and that it sits on. */
  readonly seats?: number;
  /**
   * Of one that goes on over the edges: so far from straight up to the back, degrees, and how far it has to give way to
   * pass what bulges, mm.
   */
  readonly wayOn?: { readonly tiltDeg: number; readonly givesMm: number };
}
