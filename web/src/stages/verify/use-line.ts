import type { DrawnFinish } from '@radiant/contract';
import { type Fdi, FINISH_LIMITS, type Vec3 } from '@radiant/core';
import { useCallback, useState } from 'react';
import { useSection } from '../../data/case-context.js';
import type { PreparedToothView } from '../../engine/views.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** So many directions to either side go along with the one that is pulled, less and less. */
const ALONG = 5;
const STEP_MM = 0.01;

/** Drawing the finish line of a tooth: what its directions are pulled to, and the way back. */
export interface LineDrawing {
  readonly on: boolean;
  readonly set: (on: boolean) => void;
  /** Pulls the line of a tooth to a place of its surface; undefined while nothing is drawn. */
  readonly pull: ((tooth: Fdi, place: Vec3) => void) | undefined;
  readonly done: () => void;
  readonly forget: (tooth: Fdi) => void;
}

/** @param views the prepared teeth as they are drawn */
export function useLine(views: ReadonlyMap<Fdi, PreparedToothView>): LineDrawing {
  const { data, set, store } = useSection('verify');
  const mayWrite = useMayWrite('verify');
  const [wished, setOn] = useState(false);
  const on = wished && mayWrite;
  const pull = useCallback(
    (tooth: Fdi, place: Vec3) => {
      const view = views.get(tooth);
      if (!view || view.finish.length === 0) return;
      set({ ...data, lines: pulled(view, tooth, place, data.lines ?? []) }, `line ${tooth}`);
    },
    [views, data, set],
  );
  const forget = (tooth: Fdi) => set({ ...data, lines: (data.lines ?? []).filter((l) => l.tooth !== tooth) });
  return { on, set: setOn, pull: on ? pull : undefined, done: () => store.endGroup(), forget };
}

/** A tooth's line with the direction that lies nearest to a place pulled to it, and those beside along with it. */
export function pulled(
  { finish, frame }: Pick<PreparedToothView, 'finish' | 'frame'>,
  tooth: Fdi,
  place: Vec3,
  lines: readonly DrawnFinish[],
): DrawnFinish[] {
  const off = (p: Vec3): Vec3 => [place[0] - p[0], place[1] - p[1], place[2] - p[2]];
  // Across the axis: how far up or down it lies is what is drawn.
  const across = (p: Vec3) => {
    const d = off(p);
    const along = d[0] * frame.z[0] + d[1] * frame.z[1] + d[2] * frame.z[2];
    return Math.hypot(...d) ** 2 - along ** 2;
  };
  const nearest = finish.reduce((best, f, i) => (across(f.wished) < across(finish[best]!.wished) ? i : best), 0);
  const d = off(finish[nearest]!.wished);
  // The edge lies at the foot of the tooth's axis.
  const mm = -(d[0] * frame.z[0] + d[1] * frame.z[1] + d[2] * frame.z[2]);
  const own = new Map(lines.filter((l) => l.tooth === tooth).map((l) => [l.at, l.mm]));
  const count = finish.length;
  for (let k = -ALONG; k <= ALONG; k++) {
    const f = finish[(nearest + k + count) % count]!;
    const before = own.get(f.at) ?? f.highMm ?? 0;
    const share = 0.5 * (1 + Math.cos((Math.PI * k) / (ALONG + 1)));
    const to = before + share * (mm - before);
    own.set(f.at, Math.round(Math.max(FINISH_LIMITS.min, Math.min(FINISH_LIMITS.max, to)) / STEP_MM) * STEP_MM);
  }
  return [
    ...lines.filter((l) => l.tooth !== tooth),
    ...[...own].sort(([a], [b]) => a - b).map(([at, v]) => ({ tooth, at, mm: Number(v.toFixed(2)) })),
  ];
}
