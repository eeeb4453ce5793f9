import { type CaseDetail, contourPlan, directSettings, type GuideFacts, mouthOf, workOn } from '@radiant/contract';
import {
  ask,
  type CaseEngine,
  type Guide,
  inMouth,
  type Jaw,
  label,
  mergeMeshes,
  NOTATION_NAMES,
  type Notation,
  onlyAdded,
  Refusal,
  restorationOf,
  rowOf,
  writeObj,
  writePly,
  writeStlBinary,
} from '@radiant/core';
import { ProblemException } from '../common/problem.filter.js';
import { mockUpModel } from './mock-up/model.js';
import { joinedParts } from './mock-up/solid.js';
import type { Tell } from './tell.js';
import { type Body, writeThreeMf } from './three-mf.js';

/** What goes out as a surface. */
export const SURFACES = [
  'planned',
  'existing',
  'mock-up',
  'prepared',
  'index',
  'mock-up-index',
  'leaf-guide',
  'edge-strip',
  'slices',
  'palatal-key',
  'layers',
] as const;
export type Surface = (typeof SURFACES)[number];

/** An index that sits on nothing which stays would read nothing. */
const seatless = () =>
  new ProblemException(
    422,
    'Not possible',
    'Every tooth that faces the front is planned: the index would sit on nothing that stays. Use the mock-up’s index, which sits on the premolars.',
  );

/** What goes out as a file for other programs; `json` is no surface, but how a guide sits and goes on. */
export const FORMATS = ['stl', '3mf', 'obj', 'ply', 'json'] as const;
export type Format = (typeof FORMATS)[number];

export const MIME: Readonly<Record<Format, string>> = {
  stl: 'model/stl',
  '3mf': 'model/3mf',
  obj: 'model/obj',
  ply: 'model/ply',
  json: 'application/json',
};

interface Bodies {
  readonly title: string;
  readonly bodies: readonly Body[];
  readonly facts?: GuideFacts;
}

/**
 * The planned crowns, the scanned arch, the two joined into one closed model, the target preparations, or a guide that
 * reads them, mm, in the scan's own coordinates, so that they lie over each other. Of `planned` and `prepared` each tooth
 * is a closed shell of its own; in 3MF each is a body with its number.
 * @param engine holds the scan of the jaw that is asked for
 * @param notation in which the bodies of a 3MF file are named
 * @param versionId a kept contour; the one that stands in shape where left out
 * @returns undefined while there is no scan or, for the plan, no planned tooth in that jaw
 */
export async function contourFile(
  detail: CaseDetail,
  engine: CaseEngine | undefined,
  jaw: Jaw,
  what: Surface,
  format: Format,
  notation: Notation,
  versionId?: string,
  tell: Tell = () => undefined,
): Promise<Uint8Array | undefined> {
  const made = engine && (await bodiesOf(detail, engine, jaw, what, notation, versionId, tell, format === 'json'));
  if (!made) return undefined;
  tell('Writing the file', 0.97);
  if (format === '3mf') return writeThreeMf(made.bodies, made.title);
  if (format === 'json') return Buffer.from(JSON.stringify(made.facts ?? {}));
  const mesh = mergeMeshes(made.bodies.map((b) => b.mesh));
  if (format === 'obj') return writeObj(mesh, made.title);
  if (format === 'ply') return writePly(mesh, undefined, made.title);
  return writeStlBinary(mesh, undefined, made.title);
}

/** Guides that seat on the teeth that stay, and the question that makes them. */
const GUIDES = {
  index: { name: 'facial index', query: 'facialIndex' },
  'leaf-guide': { name: 'leaf guide', query: 'leafGuide' },
  'edge-strip': { name: 'edge strip', query: 'edgeGuide' },
  'mock-up-index': { name: 'mock-up index', query: 'mockUpGuide' },
} as const;

/** The layers of all teeth that are only added to; of all planned ones where none is. */
function layerBodies(detail: CaseDetail, engine: CaseEngine, jaw: Jaw, notation: Notation, tell: Tell): Body[] {
  const { direct, reduce } = detail.sections;
  const settings = directSettings(direct.data);
  const standing = engine.teeth(jaw);
  const added = standing.filter(
    (t) => direct.data.works.some((w) => w.tooth === t) || onlyAdded(restorationOf(t, reduce.data).design),
  );
  return (added.length > 0 ? added : standing).flatMap((t, i, all): Body[] => {
    tell(`Layers of ${label(t, notation)}`, 0.2 + (0.7 * i) / all.length);
    try {
      return ask(engine, 'directLayers', t, settings, workOn(direct.data, t)).map(
        ({ name, mesh }): Body => ({ name: `${name} ${label(t, notation)} (${NOTATION_NAMES[notation].short})`, mesh }),
      );
    } catch (error) {
      // Nothing is missing on a tooth that is only ground.
      if (error instanceof Refusal && error.code === 'nothing-missing') return [];
      throw error;
    }
  });
}

async function bodiesOf(
  detail: CaseDetail,
  engine: CaseEngine,
  jaw: Jaw,
  what: Surface,
  notation: Notation,
  versionId: string | undefined,
  tell: Tell,
  factsOnly: boolean,
): Promise<Bodies | undefined> {
  tell('Shaping the crowns', 0.15);
  if (what === 'existing') {
    const { teeth, rest } = engine.scan(jaw);
    return {
      title: `existing ${jaw} jaw, mm`,
      bodies: [
        ...[...teeth].map(([t, mesh]) => ({
          name: `tooth ${label(t, notation)} (${NOTATION_NAMES[notation].short})`,
          mesh,
        })),
        { name: 'gum', mesh: rest },
      ],
    };
  }
  const version = versionId ? detail.contours.find((c) => c.id === versionId) : undefined;
  const plan = contourPlan(version ? version.teeth : versionId ? [] : detail.sections.shape.data.teeth);
  if (!rowOf(jaw).some((t) => plan[t])) return undefined;
  const of = version ? `version ${version.number}, ` : '';
  engine.setPlan(plan);
  if (what === 'mock-up') {
    const title = `${jaw} mock-up model, ${of}mm`;
    return { title, bodies: [{ name: 'mock-up model', mesh: await mockUpModel(engine, jaw, tell) }] };
  }
  if (what === 'slices') {
    tell('Looking at the row from the front', 0.3);
    if (engine.teeth(jaw).length === 0) return undefined;
    const bodies = ask(engine, 'sagittalSlices', jaw).map(
      ({ tooth, mesh }): Body => ({
        name: `slice ${label(tooth, notation)} (${NOTATION_NAMES[notation].short})`,
        mesh,
      }),
    );
    return { title: `sagittal slices, ${jaw} jaw, ${of}mm`, bodies };
  }
  if (what === 'palatal-key') {
    tell('Looking at the row', 0.3);
    if (engine.teeth(jaw).length === 0) return undefined;
    const { keyFrontMm, keyUpMm } = directSettings(detail.sections.direct.data);
    const { parts, ...facts } = ask(engine, 'palatalGuide', jaw, { frontMm: keyFrontMm, upMm: keyUpMm });
    if (facts.seats === 0) throw seatless();
    if (factsOnly) return { title: 'palatal key', bodies: [], facts };
    const mesh = await joinedParts(parts);
    return { title: `palatal key, ${jaw} jaw, ${of}mm`, bodies: [{ name: 'palatal key', mesh }], facts };
  }
  if (what === 'layers') {
    const own = layerBodies(detail, engine, jaw, notation, tell);
    return own.length > 0 ? { title: `layers of composite, ${jaw} jaw, ${of}mm`, bodies: own } : undefined;
  }
  if (what in GUIDES) {
    tell('Looking at the row', 0.3);
    if (engine.teeth(jaw).length === 0) return undefined;
    const { name, query } = GUIDES[what as keyof typeof GUIDES];
    const { parts, ...facts }: Guide = ask(engine, query, jaw);
    if (facts.seats === 0) throw seatless();
    if (factsOnly) return { title: name, bodies: [], facts };
    tell('Joining its parts', 0.8);
    return { title: `${name}, ${jaw} jaw, ${of}mm`, bodies: [{ name, mesh: await joinedParts(parts) }], facts };
  }
  const standing = rowOf(jaw).filter((t) => engine.teeth(jaw).includes(t));
  if (what === 'prepared') {
    const { reduce, meet } = detail.sections;
    const stumps = standing.map((t, i): Body => {
      tell(`Preparing ${label(t, notation)}`, 0.2 + (0.7 * i) / standing.length);
      return {
        name: `target preparation ${label(t, notation)} (${NOTATION_NAMES[notation].short})`,
        mesh: ask(engine, 'target', t, reduce.data, mouthOf(meet.data)).mesh,
      };
    });
    return stumps.length > 0 ? { title: `target preparations, ${jaw} jaw, ${of}mm`, bodies: stumps } : undefined;
  }
  const crowns = standing.map(
    (t): Body => ({
      name: `planned ${label(t, notation)} (${NOTATION_NAMES[notation].short})`,
      mesh: inMouth(engine.crown(t)).mesh,
    }),
  );
  if (crowns.length === 0) return undefined;
  return { title: `planned contour, ${jaw} jaw, ${of}mm`, bodies: crowns };
}
