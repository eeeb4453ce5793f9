// Renders a photograph with the built stand-ins in a process of its own: several times faster than inside the test runner.
// Arguments: a recipe's name or seed, and camera settings as JSON. Writes raw RGBA to standard output.
import { AVOCET, makePatient, photograph, RETRACTED_FRONT, scatteredRecipe } from '../dist/index.js';

const [who, setting] = process.argv.slice(2);
const recipe = who === 'avocet' ? AVOCET : scatteredRecipe(Number(who));
const picture = photograph(makePatient(recipe), { ...RETRACTED_FRONT, ...JSON.parse(setting ?? '{}') });
process.stdout.write(Buffer.from(picture.rgba.buffer));
