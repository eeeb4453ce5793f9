import {
  add,
  type Cells,
  distance,
  dot,
  type Fdi,
  firstThrough,
  type PickedView,
  PULL_SIDE_MM,
  pullShare,
  scale,
  sub,
  type Vec3,
} from '@radiant/core';
import { invalidate, type ThreeEvent, useFrame, useThree } from '@react-three/fiber';
import { memo, type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { DrawableMesh } from '../engine/drawable.js';
import type { LaidView } from '../engine/raw-jaw.worker.js';
import type { JawView } from '../engine/views.js';
import { PALETTE } from '../ui/palette.js';
import type { View } from './arch-eye.js';
import { useGeometry } from './arch-surfaces.js';
import { differenceColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { studioLight } from './studio-light.js';

/** Tints of neighbouring teeth: near enough to enamel, far enough from each other. */
const TINTS = ['#f3e6c8', '#cfe0ee', '#d9ecd0', '#f0d9e6', '#e6dcf4'].map((c) => new THREE.Color(c));
const GUM = new THREE.Color('#cf8a85');
const GHOST = '#e6e0d2';
const CHOSEN = new THREE.Color('#c79ac3');
const SOFT = studioLight(0.35);
/** A whole jaw with its picked teeth: hand of a click, of a stroke, and the places clicked so far. */
export const OwnScanScene = memo(function OwnScanScene({
  laid,
  cells,
  picked,
  chosen,
  view,
  painting,
  pulling,
  own,
  off,
  across,
  places,
  labels,
  onClick,
  onStroke,
  onPull,
}: {
  laid: LaidView;
  /** Its triangles by their place; without them no pointer meets it. */
  cells: Cells | undefined;
  picked: PickedView;
  chosen: Fdi | undefined;
  view: View;
  /** Whether a drag paints instead of turning. */
  painting: boolean;
  /** Whether a drag pulls the line between a tooth and the gum. */
  pulling: boolean;
  /** Whether the scanner's own colours are shown. */
  own: boolean;
  /** How far off another scan each vertex lies, mm, to be shown instead of the teeth. */
  off?: Float32Array | undefined;
  /** The jaw across from it, while this one is put on it. */
  across?: JawView | undefined;
  places: readonly (readonly [number, number, number])[];
  /** The element over the picture whose children, one a tooth, are carried along. */
  labels: RefObject<HTMLElement | null>;
  onClick: (vertex: number, at: readonly [number, number, number]) => void;
  onStroke: (vertices: readonly number[]) => void;
  onPull: (tooth: Fdi, from: Vec3, to: Vec3) => void;
}) {
  const hold = useRef(false);
  const [pull, setPull] = useState<Pull>();
  return (
    <JawCanvas label="The scan in three dimensions" view={view} hold={hold}>
      <Jaw
        laid={laid}
        cells={cells}
        picked={picked}
        chosen={chosen}
        own={own}
        off={off}
        painting={painting}
        pulling={pulling}
        pull={pull}
        setPull={setPull}
        hold={hold}
        onClick={onClick}
        onStroke={onStroke}
        onPull={onPull}
      />
      {!own &&
        !off &&
        picked.necks.map((n) => (
          <NeckLine
            key={n.tooth}
            line={n.line}
            on={n.tooth === chosen || pulling}
            pull={pull?.tooth === n.tooth ? pull : undefined}
          />
        ))}
      {across?.teeth.map((t) => (
        <Ghost key={t.tooth} mesh={t.mesh} />
      ))}
      {places.map((p) => (
        <mesh key={p.join(' ')} position={[...p]} renderOrder={3}>
          <sphereGeometry args={[0.7, 16, 12]} />
          <meshBasicMaterial color={PALETTE.plum} depthTest={false} transparent />
        </mesh>
      ))}
      <Carried teeth={picked.teeth} labels={labels} />
    </JawCanvas>
  );
});

function Jaw({
  laid,
  cells,
  picked,
  chosen,
  own,
  off,
  painting,
  pulling,
  pull,
  setPull,
  hold,
  onClick,
  onStroke,
  onPull,
}: {
  laid: LaidView;
  cells: Cells | undefined;
  picked: PickedView;
  chosen: Fdi | undefined;
  own: boolean;
  off: Float32Array | undefined;
  painting: boolean;
  pulling: boolean;
  pull: Pull | undefined;
  setPull: (p: Pull | undefined) => void;
  hold: { current: boolean };
  onClick: (vertex: number, at: readonly [number, number, number]) => void;
  onStroke: (vertices: readonly number[]) => void;
  onPull: (tooth: Fdi, from: Vec3, to: Vec3) => void;
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
      const tint =
        t === 0 ? GUM : t === chosen ? CHOSEN : (TINTS[(t + Math.floor(t / 10)) % TINTS.length] as THREE.Color);
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
      if (!pull) return;
      setPull(undefined);
      if (distance(pull.from, pull.to) > LEAST_PULL_MM) onPull(pull.tooth, pull.from, pull.to);
    };
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, [hold, onStroke, pull, setPull, onPull]);
  const click = useCallback(
    (e: ThreeEvent<MouseEvent>) => {
      if (e.delta > 4 || painting || pulling || !e.face) return;
      onClick(e.face.a, [e.point.x, e.point.y, e.point.z]);
    },
    [painting, pulling, onClick],
  );
  const down = useCallback(
    (e: ThreeEvent<PointerEvent>) => {
      if (e.button !== 0 || !e.face) return;
      const taken = pulling ? lineAt(picked, [e.point.x, e.point.y, e.point.z]) : undefined;
      // Beside every line a drag turns the view.
      if (pulling && !taken) return;
      e.stopPropagation();
      hold.current = true;
      if (taken) setPull({ ...taken, to: taken.from });
      else stroke.current = [e.face.a];
    },
    [hold, pulling, picked, setPull],
  );
  const move = useCallback(
    (e: ThreeEvent<PointerEvent>) => {
      if (pull) setPull({ ...pull, to: [e.point.x, e.point.y, e.point.z] });
      if (stroke.current && e.face && stroke.current.at(-1) !== e.face.a) stroke.current.push(e.face.a);
    },
    [pull, setPull],
  );
  // three asks every triangle for a ray, an eighth of a second on a million; the cells ask a few thousand.
  const meet = useCallback(
    function (this: THREE.Mesh, { ray }: THREE.Raycaster, met: THREE.Intersection[]) {
      const { x, y, z } = ray.direction;
      const hit = cells && firstThrough(cells, laid.mesh, [ray.origin.x, ray.origin.y, ray.origin.z], [x, y, z]);
      if (!hit) return;
      const [a, b, c] = laid.mesh.triangles.subarray(3 * hit.face, 3 * hit.face + 3) as unknown as [
        number,
        number,
        number,
      ];
      met.push({
        distance: hit.distance,
        point: ray.at(hit.distance, new THREE.Vector3()),
        object: this,
        face: { a, b, c, normal: new THREE.Vector3(-x, -y, -z), materialIndex: 0 },
        faceIndex: hit.face,
      });
    },
    [laid, cells],
  );
  return (
    <mesh
      geometry={geometry}
      raycast={meet}
      onClick={click}
      {...((painting || pulling) && { onPointerDown: down, onPointerMove: move })}
    >
      <meshMatcapMaterial matcap={SOFT} vertexColors color={PALETTE.white} side={THREE.DoubleSide} />
    </mesh>
  );
}

/** A tooth of the other jaw: to be seen through, and clicked through. */
function Ghost({ mesh }: { mesh: DrawableMesh }) {
  const geometry = useGeometry(mesh);
  return (
    <mesh geometry={geometry} renderOrder={1} raycast={NOTHING}>
      <meshMatcapMaterial matcap={SOFT} color={GHOST} transparent opacity={0.5} />
    </mesh>
  );
}

/** A line in hand: where it was taken, and where it is pulled to. */
interface Pull {
  readonly tooth: Fdi;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** A line is taken by a press no further from it than this, mm. */
const TAKE_MM = 1;
/** Shorter pulls are a press, mm. */
const LEAST_PULL_MM = 0.15;

/** The line nearest to a place, if it is near, and its nearest point. */
function lineAt(picked: PickedView, at: Vec3): { tooth: Fdi; from: Vec3 } | undefined {
  let best: { tooth: Fdi; from: Vec3 } | undefined;
  let least = TAKE_MM;
  for (const { tooth, line } of picked.necks)
    for (let i = 0; i < line.length; i += 3) {
      const from: Vec3 = [line[i] as number, line[i + 1] as number, line[i + 2] as number];
      const far = distance(from, at);
      if (far >= least) continue;
      least = far;
      best = { tooth, from };
    }
  return best;
}

const LINE = { on: new THREE.Color(PALETTE.plum), off: new THREE.Color('#7d4a3f') } as const;
const WIDE_PX = { on: 3, off: 1.4 } as const;

/** The line between a tooth and the gum; while it is pulled, what goes along with the hand is drawn over everything. */
function NeckLine({ line, on, pull }: { line: Float32Array; on: boolean; pull: Pull | undefined }) {
  const { still, along } = useMemo(
    () => (pull ? pulledAlong(line, pull) : { still: line, along: undefined }),
    [line, pull],
  );
  return (
    <>
      <Pieces line={still} on={on} />
      {along && along.length > 0 && <Pieces line={along} on over />}
    </>
  );
}

/** Pieces of lines of two points each. */
function Pieces({ line, on, over = false }: { line: Float32Array; on: boolean; over?: boolean }) {
  const drawn = useMemo(() => new LineSegments2(new LineSegmentsGeometry(), new LineMaterial()), []);
  useEffect(() => {
    drawn.material.color = on ? LINE.on : LINE.off;
    drawn.material.linewidth = on ? WIDE_PX.on : WIDE_PX.off;
    drawn.material.depthTest = !over;
    drawn.visible = line.length > 0;
    if (line.length > 0) drawn.geometry.setPositions(line);
    invalidate();
  }, [drawn, line, on, over]);
  useEffect(
    () => () => {
      drawn.geometry.dispose();
      drawn.material.dispose();
    },
    [drawn],
  );
  return <primitive object={drawn} renderOrder={over ? 3 : 2} raycast={NOTHING} />;
}

/** Lines are no target: a press is told by the surface under them. */
const NOTHING = () => undefined;

/** The pieces that stay where they are, and those that go along, where they go. */
function pulledAlong(line: Float32Array, { from, to }: Pull): { still: Float32Array; along: Float32Array } {
  const far = distance(from, to);
  const still: number[] = [];
  const along: number[] = [];
  const way = far === 0 ? from : scale(sub(to, from), 1 / far);
  const by = (at: Vec3): number => {
    const d = sub(at, from);
    const up = dot(d, way);
    // What lies behind the tooth is not meant.
    return far === 0 || Math.abs(up) > far + PULL_SIDE_MM
      ? 0
      : far * pullShare(Math.sqrt(Math.max(0, dot(d, d) - up * up)));
  };
  for (let i = 0; i < line.length; i += 6) {
    const ends = [0, 3].map((o): Vec3 => [line[i + o] as number, line[i + o + 1] as number, line[i + o + 2] as number]);
    const moved = ends.map(by);
    if (moved.every((mm) => mm === 0)) still.push(...ends.flat());
    else
      ends.forEach((at, k) => {
        along.push(...add(at, scale(way, moved[k] as number)));
      });
  }
  return { still: Float32Array.from(still), along: Float32Array.from(along) };
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
