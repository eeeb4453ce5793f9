// Renders a photograph with the built stand-ins in a process of its own: several times faster than inside the test runner.
// Arguments: a recipe's name or seed, a view's name, and as JSON changes of its camera and its expression. Writes raw RGBA.
import { makePatient, photograph, RECIPES, scatteredRecipe, VIEWS } from '../dist/index.js';

const [who, view, camera, expression] = process.argv.slice(2);
const patient = makePatient(RECIPES[who] ?? scatteredRecipe(Number(who)));
const setup = VIEWS[view];
const picture = photograph(patient, { ...setup.camera, ...JSON.parse(camera) }, { ...setup.expression, ...JSON.parse(expression) });
process.stdout.write(Buffer.from(picture.rgba.buffer));
