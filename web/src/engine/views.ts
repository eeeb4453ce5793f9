import type { ExistingSummary, Fdi, VolumeChange } from '@radiant/core';
import type { DrawableMesh } from './drawable.js';

/** A jaw to be looked at. */
export interface JawView {
  readonly teeth: readonly { readonly tooth: Fdi; readonly mesh: DrawableMesh }[];
  readonly gum: DrawableMesh;
}

/** A jaw to be looked at, its teeth measured. */
export interface ArchView extends JawView {
  readonly existing: readonly ExistingSummary[];
}

/** A planned crown with the distance of each vertex from the tooth that is there, mm: + added, − removed. */
export interface PlannedView {
  readonly tooth: Fdi;
  readonly mesh: DrawableMesh;
  readonly differenceMm: Float32Array;
  readonly mostAddedMm: number;
  readonly mostRemovedMm: number;
  /** Volume against the tooth that is there; only where the map is a full one. */
  readonly volume?: VolumeChange;
}
