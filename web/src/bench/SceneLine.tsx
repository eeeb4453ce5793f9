import { useEffect, useMemo } from 'react';
import * as THREE from 'three';

/** How places are drawn: each as a dot, joined, joined all round, or two by two. */
export type LineForm = 'dots' | 'line' | 'loop' | 'stretches';

const MADE: Readonly<Record<LineForm, (g: THREE.BufferGeometry, colour: string, over: boolean) => THREE.Object3D>> = {
  dots: (g, color, over) =>
    new THREE.Points(g, new THREE.PointsMaterial({ color, size: 2.5, sizeAttenuation: false, depthTest: !over })),
  line: (g, color, over) => new THREE.Line(g, new THREE.LineBasicMaterial({ color, depthTest: !over })),
  loop: (g, color, over) => new THREE.LineLoop(g, new THREE.LineBasicMaterial({ color, depthTest: !over })),
  stretches: (g, color, over) => new THREE.LineSegments(g, new THREE.LineBasicMaterial({ color, depthTest: !over })),
};

/**
 * Places drawn over the surfaces of a scene.
 * @param at three numbers a place, in the mouth's frame, mm
 * @param over whether they are seen through what stands before them
 */
export function SceneLine({
  at,
  form,
  colour,
  over = false,
  order = 3,
}: {
  at: ArrayLike<number>;
  form: LineForm;
  colour: string;
  over?: boolean;
  order?: number;
}) {
  const drawn = useMemo(() => {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(at), 3));
    return { object: MADE[form](geometry, colour, over) as THREE.Line, geometry };
  }, [at, form, colour, over]);
  useEffect(
    () => () => {
      drawn.geometry.dispose();
      (drawn.object.material as THREE.Material).dispose();
    },
    [drawn],
  );
  return <primitive object={drawn.object} renderOrder={order} />;
}
