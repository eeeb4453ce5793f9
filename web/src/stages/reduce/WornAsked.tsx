import { wornUnmeasured } from '@radiant/contract';
import { Link } from 'react-router';
import { useCase } from '../../data/case-context.js';

/** Asks whether a mock-up that was worn was measured again: targets know only the contour, not what was ground on it. */
export function WornAsked() {
  const { detail } = useCase();
  const version = wornUnmeasured(detail.contours);
  if (!version) return null;
  return (
    <p className="finding mb-3 text-note" data-weight="watch" data-testid="worn-asked">
      Version {version.number}, {version.name}, was worn as a mock-up
      {version.worn?.measured === 'no'
        ? ', and its shape was not measured again. '
        : '. Was its shape measured again as it was worn? '}
      What was ground or added in the mouth is in no target.{' '}
      <Link className="how" to="../shape">
        Say it in shape
      </Link>
    </p>
  );
}
