import type { ExistingSummary, Fdi, MarginPlace, PreparedView, TargetTold, VolumeChange } from '@radiant/core';
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

/** A target preparation, and the tooth as it is on the same vertices, with what goes at each, mm. */
export interface TargetView {
  readonly tooth: Fdi;
  readonly before: DrawableMesh;
  readonly prepared: DrawableMesh;
  readonly removedMm: Float32Array;
  readonly alignMm: Float32Array;
  /** Facial enamel of most teeth at each vertex, mm, thin and thick end; NaN where none is known. */
  readonly enamelMm: readonly [Float32Array, Float32Array];
  /** Three numbers a place. */
  readonly finishLine: Float32Array;
  /** The finish line along the gum with its level. */
  readonly margin: readonly MarginPlace[];
  readonly told: TargetTold;
  readonly notes: readonly string[];
}

/** A prepared tooth as it was scanned, with what is still to cut at each vertex, mm; NaN where nothing was to be cut. */
export interface PreparedToothView extends Omit<PreparedView, 'mesh' | 'shortMm' | 'roomMm'> {
  readonly mesh: DrawableMesh;
  readonly shortMm: Float32Array;
  readonly roomMm: Float32Array;
}
