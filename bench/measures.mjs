import {
  findings,
  gapsBetween,
  LANDMARK_KINDS,
  measureFrontDetails,
  measureTeeth,
  measureView,
  pointSpec,
  printed,
  rankReference,
  scaleFrom,
  viewFindings,
} from '@radiant/core';
import { AVOCET, makePatient, project, scalePoints, truePoints, trueViewPoints, VIEWS } from '@radiant/standins';
import { figure, medianMs } from './figure.mjs';

/** A case with every point of all ten views marked. */
const patient = makePatient(AVOCET);
const views = Object.entries(VIEWS).map(([view, { camera, expression }]) => ({
  view,
  points: Object.fromEntries(
    Object.entries(trueViewPoints(patient, view, expression)).map(([id, p]) => [id, project(camera, p)]),
  ),
  scale: scaleFrom(scalePoints(VIEWS['retracted-front'].camera), printed(40)),
}));
const camera = VIEWS['retracted-front'].camera;
const set = Object.fromEntries(
  patient.teeth.map((t) => [
    t.tooth,
    Object.fromEntries(LANDMARK_KINDS.map((k) => [k, project(camera, truePoints(t)[k])])),
  ]),
);
const front = views.find((v) => v.view === 'retracted-front');

/** What the read stage works out after every change, from the beginning and with nothing kept. */
function whole() {
  const measures = measureTeeth(set, front.scale);
  const lengths = Object.fromEntries(measures.flatMap((m) => (m.length ? [[m.tooth, m.length]] : [])));
  const figures = views.flatMap((v) =>
    v === front ? measureFrontDetails(set, v.points, v.scale) : measureView(v, { lengths }),
  );
  return [
    findings(measures),
    viewFindings(figures, { ageYears: 34, sex: 'female', centralLengthMm: 10 }),
    rankReference(measures),
    gapsBetween(set, front.scale),
    figures,
  ];
}
if (whole()[4].length < 90 || !pointSpec('close-smile', 'outer-left'))
  throw new Error('The case is not marked as it should be.');
const ms = medianMs(whole, { warm: 200, runs: 101 });
figure('measures-of-a-full-case', ms, 'ms', 'limit:2ms', 2 / ms);
