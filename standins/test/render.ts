import {
  type CameraSetting,
  type Expression,
  makePatient,
  type Patient,
  photograph,
  RECIPES,
  type RecipeName,
  scatteredRecipe,
  VIEWS,
  type ViewName,
} from '@radiant/standins';

const patients = new Map<RecipeName | number, Patient>();

/** A virtual patient by its name or seed, made once. */
export function patientOf(who: RecipeName | number): Patient {
  const made = patients.get(who) ?? makePatient(typeof who === 'number' ? scatteredRecipe(who) : RECIPES[who]);
  patients.set(who, made);
  return made;
}

/** A photograph as the simulated camera takes it. */
export function rendered(
  who: RecipeName | number,
  view: ViewName,
  setting: Partial<CameraSetting> = {},
  expression: Partial<Expression> = {},
): { rgba: Uint8ClampedArray; camera: CameraSetting } {
  const setup = VIEWS[view];
  const camera = { ...setup.camera, ...setting };
  return { rgba: photograph(patientOf(who), camera, { ...setup.expression, ...expression }).rgba, camera };
}
