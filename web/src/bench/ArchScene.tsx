import { CROWN_RING, CROWN_RINGS, type Fdi, type Frame, jawOf, type SectionLine, toParent } from '@radiant/core';
import { addAfterEffect, invalidate, type ThreeEvent, useThree } from '@react-three/fiber';
import { memo, type RefObject, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import type { DrawableMesh } from '../engine/drawable.js';
import type { PlannedView } from '../engine/views.js';
import { PALETTE } from '../ui/palette.js';
import type { View } from './arch-eye.js';
import { Gum, HAND, type ToothHand, ToothSurface } from './arch-surfaces.js';
import { HandleCarrier, type HandlePlaces } from './CrownHandles.js';
import { biteColour, differenceColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { useReading } from './use-reading.js';

/** What is drawn of the teeth. */
export type Showing = 'existing' | 'planned' | 'difference' | 'both' | 'bite';

/** Teeth and gum of a jaw. */
export interface JawView {
  readonly teeth: readonly { readonly tooth: Fdi; readonly mesh: DrawableMesh }[];
  readonly gum: DrawableMesh;
}

/** The lower jaw under the upper one, carried from the scanned bite. */
export interface LowerAt {
  readonly view: JawView;
  readonly shift: readonly [number, number, number];
}

/** A plane through the arch and the lines that it leaves. */
export interface CutAt {
  readonly plane: Frame;
  readonly lines: readonly { readonly colour: string; readonly of: readonly SectionLine[] }[];
}

/** A brush: how wide it is, and what a stroke does. */
export interface BrushHand {
  readonly radiusMm: number;
  readonly begin: (tooth: Fdi, vertex: number, e: PointerEvent) => boolean;
  readonly go: (tooth: Fdi, vertex: number) => void;
  readonly end: () => void;
}

/**
 * The arch in three dimensions: the scan, the planned crowns, what is added and removed, the bite, a plane through it.
 */
export const ArchScene = memo(function ArchScene({
  arch,
  planned,
  showing,
  share = 1,
  gum,
  view,
  selected,
  onSelect,
  lower,
  biteMaps,
  cut,
  brush,
  reading,
  lit = false,
  handles,
}: {
  /** The jaw that is looked at; in a bite the upper one. */
  arch: JawView | undefined;
  planned: ReadonlyMap<Fdi, PlannedView>;
  showing: Showing;
  /** How strongly the planned crowns lie over the scan when both are shown. */
  share?: number;
  gum: boolean;
  view: View;
  selected: Fdi;
  onSelect: (tooth: Fdi) => void;
  lower?: LowerAt | undefined;
  biteMaps?: Look['biteMaps'];
  cut?: CutAt | undefined;
  brush?: BrushHand | undefined;
  /** The element that says the millimetres under the pointer. */
  reading?: RefObject<HTMLElement | null>;
  /** Whether the light goes with the pointer; then surfaces are shown without a map. */
  lit?: boolean;
  /** Where the handles of the chosen crown are carried to; none where it is not given. */
  handles?: RefObject<HandlePlaces> | undefined;
}) {
  const hold = useRef(false);
  const ring = useRef<THREE.Mesh>(null);
  const stroke = useRef<Fdi | undefined>(undefined);
  const values = useRef(new Map<Fdi, Float32Array>());

  useEffect(() => {
    values.current = new Map(
      [...planned].map(
        ([t, v]) => [t, (showing === 'bite' ? biteMaps?.of.get(t) : undefined) ?? v.differenceMm] as const,
      ),
    );
  }, [planned, showing, biteMaps]);

  const tell = useReading(reading);

  useEffect(() => {
    const up = () => {
      hold.current = false;
      if (stroke.current !== undefined) brush?.end();
      stroke.current = undefined;
    };
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', up);
    return () => {
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', up);
    };
  }, [brush]);

  const hand = useMemo<ToothHand>(
    () => ({
      press: brush ? undefined : onSelect,
      move: (tooth, vertex, e) => {
        const mm = values.current.get(tooth)?.[vertex];
        tell(lit || mm === undefined || Number.isNaN(mm) ? '' : words(mm, showing), e);
        if (!brush) return;
        placeRing(ring.current, e, brush.radiusMm);
        // While a stroke is drawn the ring moves with the surface that comes of it, not in a frame of its own.
        if (stroke.current === undefined) invalidate();
        else if (stroke.current === tooth) brush.go(tooth, vertex);
      },
      out: () => {
        tell('');
        if (ring.current) ring.current.visible = false;
      },
      ...(brush && {
        down: (tooth, vertex, e) => {
          if (!brush.begin(tooth, vertex, e.nativeEvent)) return false;
          stroke.current = tooth;
          hold.current = true;
          return true;
        },
      }),
    }),
    [brush, onSelect, showing, tell, lit],
  );

  const look: Look = { planned, showing, share, selected, biteMaps, hand, lit };
  return (
    <JawCanvas
      label={
        lower
          ? 'Both arches in three dimensions'
          : `${view.jaw === 'upper' ? 'Upper' : 'Lower'} arch in three dimensions`
      }
      view={view}
      hold={hold}
    >
      <PaintMark of={planned} />
      {lit && <LightByHand />}
      {arch && <Teeth of={arch} {...look} />}
      {showing === 'difference' && !brush && !lit && planned.get(selected) && (
        <FaceLine of={planned.get(selected) as PlannedView} />
      )}
      {handles && planned.get(selected) && (
        <HandleCarrier
          mesh={(planned.get(selected) as PlannedView).mesh}
          distalIs={DISTAL_FIRST.includes(Math.floor(selected / 10)) ? 'first' : 'last'}
          places={handles}
        />
      )}
      {gum && arch && <Gum mesh={arch.gum} pale={showing === 'difference' || showing === 'bite'} />}
      {lower && (
        <group position={[...lower.shift]}>
          <Teeth of={lower.view} {...look} />
          {gum && <Gum mesh={lower.view.gum} pale />}
        </group>
      )}
      {cut && <CutLines cut={cut} />}
      <mesh ref={ring} visible={false} renderOrder={3}>
        <ringGeometry args={[0.94, 1, 48]} />
        <meshBasicMaterial color={PALETTE.plum} depthTest={false} transparent opacity={0.9} side={THREE.DoubleSide} />
      </mesh>
    </JawCanvas>
  );
});

/** A ring begins on the left of its arch: distal on the upper left, and, the arch turned over, on the lower right. */
const DISTAL_FIRST: readonly number[] = [2, 4];

/** Turns the light to where the pointer is over the bench. */
function LightByHand() {
  const { domElement } = useThree((s) => s.gl);
  useEffect(() => {
    const move = (e: PointerEvent) => {
      const box = domElement.getBoundingClientRect();
      HAND.turn((2 * (e.clientX - box.left)) / box.width - 1, 1 - (2 * (e.clientY - box.top)) / box.height);
      invalidate();
    };
    domElement.addEventListener('pointermove', move);
    return () => domElement.removeEventListener('pointermove', move);
  }, [domElement]);
  return null;
}

/** How teeth are drawn. */
interface Look {
  readonly planned: ReadonlyMap<Fdi, PlannedView>;
  readonly showing: Showing;
  readonly share: number;
  readonly selected: Fdi;
  readonly biteMaps:
    | { readonly which: 'planned' | 'existing'; readonly of: ReadonlyMap<Fdi, Float32Array> }
    | undefined;
  readonly hand: ToothHand;
  readonly lit: boolean;
}

/** The teeth of a jaw, scanned or planned. A bite is coloured on the jaw of the chosen tooth. */
function Teeth({ of, planned, showing, share, selected, biteMaps, hand, lit }: Look & { of: JawView }) {
  return of.teeth.map(({ tooth, mesh }) => {
    const own = planned.get(tooth);
    const scanned = showing === 'existing' || (showing === 'bite' && biteMaps?.which === 'existing') || !own;
    const chosen = tooth === selected;
    const across = showing === 'bite' && jawOf(tooth) !== jawOf(selected);
    const map = showing === 'bite' && !across ? biteMaps?.of.get(tooth) : undefined;
    if (scanned)
      return (
        <ToothSurface
          key={`e${tooth}`}
          tooth={tooth}
          mesh={mesh}
          colour={across ? 'across' : !lit && chosen && showing === 'existing' ? 'selected' : own ? 'tooth' : 'muted'}
          lit={lit}
          values={fits(map, mesh)}
          scale={biteColour}
          hand={hand}
        />
      );
    return [
      showing === 'both' && <ToothSurface key={`u${tooth}`} tooth={tooth} mesh={mesh} colour="muted" />,
      <ToothSurface
        key={`p${tooth}`}
        tooth={tooth}
        mesh={own.mesh}
        colour={across ? 'across' : chosen && !lit ? 'selected' : 'planned'}
        lit={lit}
        values={showing === 'difference' ? own.differenceMm : fits(map, own.mesh)}
        scale={showing === 'difference' ? differenceColour : biteColour}
        opacity={showing === 'both' ? share : 1}
        hand={hand}
      />,
    ];
  });
}

/** A map fits a surface while they are of the same crown; in between, one of the two is on its way. */
const fits = (map: Float32Array | undefined, mesh: { readonly positions: Float32Array }) =>
  map && map.length * 3 === mesh.positions.length ? map : undefined;

function words(mm: number, showing: Showing): string {
  const figure = Math.abs(mm).toFixed(2);
  if (showing === 'bite')
    return mm < -0.05 ? `${figure} mm into the tooth across` : mm <= 0.05 ? 'touches' : `${figure} mm clear`;
  return `${mm < 0 ? '−' : '+'}${figure} mm ${mm < 0 ? 'removed' : 'added'}`;
}

const Z = new THREE.Vector3(0, 0, 1);

function placeRing(ring: THREE.Mesh | null, e: ThreeEvent<PointerEvent>, radiusMm: number): void {
  if (!ring || !e.face) return;
  ring.visible = true;
  ring.position.copy(e.point).addScaledVector(e.face.normal, 0.08);
  ring.quaternion.setFromUnitVectors(Z, e.face.normal);
  ring.scale.setScalar(radiusMm);
}

/** The vertices around a crown's face: along the neck, down one border, along the edge, up the other. */
const FACE: readonly number[] = [
  ...Array.from({ length: CROWN_RING / 2 + 1 }, (_, k) => k),
  ...Array.from({ length: CROWN_RINGS - 1 }, (_, r) => (r + 1) * CROWN_RING + CROWN_RING / 2),
  ...Array.from({ length: CROWN_RING / 2 }, (_, k) => CROWN_RINGS * CROWN_RING - CROWN_RING / 2 - 1 - k),
  ...Array.from({ length: CROWN_RINGS - 2 }, (_, r) => (CROWN_RINGS - 2 - r) * CROWN_RING),
];

/**
 * One material for each colour of line, for as long as the page lives: a material that comes and goes takes its program
 * with it.
 */
const LINES = new Map<string, THREE.LineBasicMaterial>();

function lineMaterial(colour: string): THREE.LineBasicMaterial {
  const known =
    LINES.get(colour) ?? new THREE.LineBasicMaterial({ color: colour, depthTest: false, transparent: true });
  LINES.set(colour, known);
  return known;
}

/** An outline around the chosen crown's face, so that it is known in a coloured map too. */
function FaceLine({ of }: { of: PlannedView }) {
  const line = useMemo(() => {
    const positions = new Float32Array(FACE.flatMap((v) => [...of.mesh.positions.subarray(3 * v, 3 * v + 3)]));
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
    return new THREE.LineLoop(geometry, lineMaterial(PALETTE.plum));
  }, [of.mesh]);
  useEffect(() => () => line.geometry.dispose(), [line]);
  return <primitive object={line} renderOrder={4} />;
}

/** The lines of a plane, drawn over the surfaces, and the plane as a faint pane. */
function CutLines({ cut }: { cut: CutAt }) {
  const made = useMemo(
    () =>
      cut.lines.flatMap(({ colour, of }) =>
        of.map((line) => {
          const n = line.points.length / 2;
          const positions = new Float32Array(3 * n);
          for (let i = 0; i < n; i++)
            positions.set(
              toParent(cut.plane, [line.points[2 * i] as number, line.points[2 * i + 1] as number, 0]),
              3 * i,
            );
          const geometry = new THREE.BufferGeometry();
          geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
          return new THREE.LineLoop(geometry, lineMaterial(colour));
        }),
      ),
    [cut],
  );
  useEffect(() => {
    invalidate();
    return () => {
      for (const l of made) l.geometry.dispose();
    };
  }, [made]);
  const pane = useMemo(() => {
    const { x, y, z, origin } = cut.plane;
    const m = new THREE.Matrix4().makeBasis(new THREE.Vector3(...x), new THREE.Vector3(...y), new THREE.Vector3(...z));
    return { quaternion: new THREE.Quaternion().setFromRotationMatrix(m), position: new THREE.Vector3(...origin) };
  }, [cut.plane]);
  return (
    <>
      <mesh position={pane.position} quaternion={pane.quaternion} renderOrder={2}>
        <planeGeometry args={[26, 22]} />
        <meshBasicMaterial color={PALETTE.plum} transparent opacity={0.16} side={THREE.DoubleSide} depthWrite={false} />
      </mesh>
      {made.map((l) => (
        <primitive key={l.uuid} object={l} renderOrder={3} />
      ))}
    </>
  );
}

/** Leaves a mark in the browser's own timeline each time that new planned surfaces were drawn. */
function PaintMark({ of }: { of: unknown }) {
  const due = useRef<unknown>(undefined);
  useLayoutEffect(() => {
    due.current = of;
  }, [of]);
  useEffect(
    () =>
      addAfterEffect(() => {
        if (due.current === undefined) return;
        due.current = undefined;
        performance.clearMarks('contour-painted');
        performance.mark('contour-painted');
      }),
    [],
  );
  return null;
}
