import type { Fdi } from '@radiant/core';
import { invalidate, type ThreeEvent, useFrame, useThree } from '@react-three/fiber';
import { memo, type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import type { Laid, PickedView } from '../workers/own-scan.worker.js';
import type { View } from './arch-eye.js';
import { useGeometry } from './arch-surfaces.js';
import { differenceColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { studioLight } from './studio-light.js';

/** Tints of neighbouring teeth: near enough to enamel, far enough from each other. */
const TINTS = ['#f3e6c8', '#cfe0ee', '#d9ecd0', '#f0d9e6', '#e6dcf4'].map((c) => new THREE.Color(c));
const GUM = new THREE.Color('#cf8a85');
const CHOSEN = new THREE.Color('#8a4a86');
const SOFT = studioLight(0.35);
/** A whole jaw with its picked teeth: hand of a click, of a stroke, and the places clicked so far. */
export const OwnScanScene = memo(function OwnScanScene({
  laid,
  picked,
  chosen,
  view,
  painting,
  own,
  off,
  places,
  labels,
  onClick,
  onStroke,
}: {
  laid: Laid;
  picked: PickedView;
  chosen: Fdi | undefined;
  view: View;
  /** Whether a drag paints instead of turning. */
  painting: boolean;
  /** Whether the scanner's own colours are shown. */
  own: boolean;
  /** How far off another scan each vertex lies, mm, to be shown instead of the teeth. */
  off?: Float32Array | undefined;
  places: readonly (readonly [number, number, number])[];
  /** The element over the picture whose children, one a tooth, are carried along. */
  labels: RefObject<HTMLElement | null>;
  onClick: (vertex: number, at: readonly [number, number, number]) => void;
  onStroke: (vertices: readonly number[]) => void;
}) {
  const hold = useRef(false);
  return (
    <JawCanvas label="The scan in three dimensions" view={view} hold={hold}>
      <Jaw laid={laid} picked={picked} chosen={chosen} own={own} off={off} painting={painting} hold={hold} onClick={onClick} onStroke={onStroke} />
      {places.map((p) => (
        <mesh key={p.join(' ')} position={[...p]} renderOrder={3}>
          <sphereGeometry args={[0.7, 16, 12]} />
          <meshBasicMaterial color="#5d2a5a" depthTest={false} transparent />
        </mesh>
      ))}
      <Carried teeth={picked.teeth} labels={labels} />
    </JawCanvas>
  );
});

function Jaw({
  laid,
  picked,
  chosen,
  own,
  off,
  painting,
  hold,
  onClick,
  onStroke,
}: {
  laid: Laid;
  picked: PickedView;
  chosen: Fdi | undefined;
  own: boolean;
  off: Float32Array | undefined;
  painting: boolean;
  hold: { current: boolean };
  onClick: (vertex: number, at: readonly [number, number, number]) => void;
  onStroke: (vertices: readonly number[]) => void;
}) {
  const geometry = useGeometry(laid.mesh);
  const stroke = useRef<number[] | undefined>(undefined);
  useLayoutEffect(() => {
    if (own && laid.colours) {
      geometry.setAttribute('color', new THREE.BufferAttribute(laid.colours, 3));
      invalidate();
      return;
    }
    const colours = new Float32Array(3 * picked.tooth.length);
    if (off) {
      const c = new THREE.Color();
      off.forEach((mm, v) => {
        const [r, g, b] = differenceColour(mm);
        c.setRGB(r, g, b, THREE.SRGBColorSpace).toArray(colours, 3 * v);
      });
      geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
      invalidate();
      return;
    }
    for (let v = 0; v < picked.tooth.length; v++) {
      const t = picked.tooth[v] as number;
      const tint = t === 0 ? GUM : t === chosen ? CHOSEN : (TINTS[(t + Math.floor(t / 10)) % TINTS.length] as THREE.Color);
      tint.toArray(colours, 3 * v);
    }
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
    invalidate();
  }, [geometry, picked, chosen, own, off, laid.colours]);
  useEffect(() => {
    const up = () => {
      hold.current = false;
      if (stroke.current) onStroke(stroke.current);
      stroke.current = undefined;
    };
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, [hold, onStroke]);
  const click = useCallback(
    (e: ThreeEvent<MouseEvent>) => {
      if (e.delta > 4 || painting || !e.face) return;
      onClick(e.face.a, [e.point.x, e.point.y, e.point.z]);
    },
    [painting, onClick],
  );
  const down = useCallback(
    (e: ThreeEvent<PointerEvent>) => {
      if (e.button !== 0 || !e.face) return;
      e.stopPropagation();
      hold.current = true;
      stroke.current = [e.face.a];
    },
    [hold],
  );
  const move = useCallback((e: ThreeEvent<PointerEvent>) => {
    if (stroke.current && e.face && stroke.current.at(-1) !== e.face.a) stroke.current.push(e.face.a);
  }, []);
  return (
    <mesh geometry={geometry} onClick={click} {...(painting && { onPointerDown: down, onPointerMove: move })}>
      <meshMatcapMaterial matcap={SOFT} vertexColors color="#ffffff" side={THREE.DoubleSide} />
    </mesh>
  );
}

/** Keeps the numbers of the teeth over them while the view turns; those on the far side are hidden. */
function Carried({ teeth, labels }: { teeth: PickedView['teeth']; labels: RefObject<HTMLElement | null> }) {
  const { camera, size } = useThree();
  const middle = useMemo(() => {
    const n = Math.max(1, teeth.length);
    const mean = (k: 0 | 1 | 2) => teeth.reduce((s, t) => s + t.at[k], 0) / n;
    return new THREE.Vector3(mean(0), mean(1), mean(2));
  }, [teeth]);
  useEffect(() => {
    if (teeth.length > 0) invalidate();
  }, [teeth]);
  useFrame(() => {
    const box = labels.current;
    if (!box) return;
    // The picture is drawn after this: the eye may have moved since the last one.
    camera.updateMatrixWorld();
    const at = new THREE.Vector3();
    teeth.forEach((t, i) => {
      const own = box.children[i] as HTMLElement | undefined;
      if (!own) return;
      at.set(...t.at);
      const out = at.clone().sub(middle).setZ(0).normalize();
      const towards = camera.position.clone().sub(at).normalize();
      own.hidden = towards.dot(out) < -0.45 && Math.abs(towards.z) < 0.8;
      at.project(camera);
      own.style.transform = `translate(-50%, -50%) translate(${((at.x + 1) / 2) * size.width}px, ${((1 - at.y) / 2) * size.height}px)`;
    });
  });
  return null;
}
