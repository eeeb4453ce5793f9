import type { Jaw } from '@radiant/core';
import { useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

/** Named views of an arch; each has a key. */
export const ARCH_VIEWS = ['front', 'right', 'left', 'above', 'edge-on', 'twelve', 'behind'] as const;
export type ViewName = (typeof ARCH_VIEWS)[number];

interface Eye {
  readonly from: readonly [number, number, number];
  readonly to: readonly [number, number, number];
}

/** Width over height of the bench for which the places below are meant, and how many times as far off it may be. */
const USUAL_SHAPE = 1.2;
const MOST_BACK = 2.2;

/** Where the eye stands and looks, in the mouth's coordinates (x to the patient's left, y backward, z up), mm. */
const EYES: Readonly<Record<ViewName, Eye>> = {
  front: { from: [0, -132, 4], to: [0, 6, 5] },
  right: { from: [-106, -78, 4], to: [-6, 12, 5] },
  left: { from: [106, -78, 4], to: [6, 12, 5] },
  above: { from: [0, -36, -141], to: [0, 12, 5] },
  'edge-on': { from: [0, -118, -62], to: [0, 5, 4] },
  twelve: { from: [0, -64, 128], to: [0, 3, 4] },
  behind: { from: [0, 118, -92], to: [0, 6, 4] },
};

/** The same places before a lower arch: the edges are up there. */
export function eyeOf(jaw: Jaw, name: ViewName): Eye {
  const { from, to } = EYES[name];
  return jaw === 'upper' ? EYES[name] : { from: [from[0], from[1], -from[2]], to: [to[0], to[1], -to[2]] };
}

export interface View {
  readonly name: ViewName;
  /** Before which arch the eye stands. */
  readonly jaw: Jaw;
  /** Counts the times that a view was asked for, so that the same one can be asked for again. */
  readonly turn: number;
  /** A place that is looked at from nearby, from the same side; else all of the arch is seen. */
  readonly about?: readonly [number, number, number] | undefined;
}

/** From nearby the eye stands at this share of its usual distance. */
const NEARBY = 0.4;

/**
 * Orbit control. The light travels with the eye, as flashes beside a lens do.
 * @param still while true, dragging does not turn
 */
export function Rig({ view, hold }: { view: View; hold: { current: boolean } }) {
  const { camera, gl, size, invalidate } = useThree();
  const controls = useRef<OrbitControls | undefined>(undefined);
  useEffect(() => {
    const c = new OrbitControls(camera, gl.domElement);
    c.target.set(...eyeOf('upper', 'front').to);
    c.enableDamping = false;
    c.minDistance = 40;
    c.maxDistance = 320;
    c.addEventListener('change', () => invalidate());
    controls.current = c;
    // A stroke begins after the controls have seen the press: they are told to stand still while it lasts.
    const follow = () => {
      c.enabled = !hold.current;
    };
    gl.domElement.addEventListener('pointermove', follow, true);
    return () => {
      gl.domElement.removeEventListener('pointermove', follow, true);
      c.dispose();
    };
  }, [camera, gl, invalidate, hold]);
  const shape = useRef(1);
  shape.current = size.width / Math.max(1, size.height);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    const eye = eyeOf(view.jaw, view.name);
    const to = view.about ?? eye.to;
    // Before a narrow bench the eye steps back until the arch is as wide as before a usual one.
    const back = Math.min(MOST_BACK, Math.max(1, USUAL_SHAPE / shape.current));
    camera.position
      .set(...eye.from)
      .sub(new Vector3(...eye.to))
      .multiplyScalar(back * (view.about ? NEARBY : 1))
      .add(new Vector3(...to));
    controls.current?.target.set(...to);
    controls.current?.update();
    invalidate();
  }, [view, camera, invalidate]);
  return null;
}
