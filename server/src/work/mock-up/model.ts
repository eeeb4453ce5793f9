import { type CaseEngine, type Jaw, type Mesh, meshToArch } from '@radiant/core';
import { ProblemException } from '../../common/problem.filter.js';
import { joinedModel } from './solid.js';

/**
 * The engine's plan joined with the untouched arch into one closed solid, mm, in the scan's own coordinates. Takes some seconds.
 * @param engine holds the scan of the jaw, and the plan
 * @throws ProblemException 422 with the sentence why it can't be made; Refusal of a scan that can't be measured
 */
export async function mockUpModel(
  engine: CaseEngine,
  jaw: Jaw,
  tell: (what: string, share: number) => void = () => undefined,
): Promise<Mesh> {
  const read = engine.scan(jaw);
  const planned: Mesh[] = engine.teeth(jaw).map((t) => engine.crown(t).mesh);
  // The plan lies over the untouched teeth, as a mock-up does: nothing is cut for it.
  // It is made in the arch's own frame, in which the foot is where the roots are, and goes out as it was scanned.
  const there = [...read.teeth.values()].map((t) => meshToArch(jaw, t));
  const { mesh } = await joinedModel([...there, ...planned], meshToArch(jaw, read.rest), { tell }).catch(
    (error: Error) => {
      throw new ProblemException(422, 'Not possible', error.message);
    },
  );
  return meshToArch(jaw, mesh);
}
