import type { CommentPlace } from '@radiant/contract';
import type { PrepFinding } from '@radiant/core';
import { useState } from 'react';
import { useCase } from '../../data/case-context.js';
import { CommentForm } from '../../shell/CommentForm.js';
import { CommentItem } from '../../shell/Comments.js';

/** The place of a remark on something that was found. */
export const placeOf = ({ tooth, check, place, at }: PrepFinding): CommentPlace => ({
  tooth,
  check,
  words: place,
  ...(at && { at }),
});

/** What people have said to one finding, the technician above all, and a line to answer. */
export function Answers({ finding: f }: { finding: PrepFinding }) {
  const { detail } = useCase();
  const [open, setOpen] = useState(false);
  const own = detail.comments.filter(
    ({ stage, place }) =>
      stage === 'verify' && place?.tooth === f.tooth && place.check === f.check && place.words === f.place,
  );
  return (
    <>
      {!open && (
        <button type="button" className="how" onClick={() => setOpen(true)}>
          answer it
        </button>
      )}
      {(open || own.length > 0) && (
        <div className="mt-1 basis-full border-l-2 border-hair pl-2.5">
          <ul className="space-y-1.5">
            {own.map((c) => (
              <CommentItem key={c.id} comment={c} />
            ))}
          </ul>
          {open && (
            <div className="mt-1.5">
              <CommentForm
                stage="verify"
                place={placeOf(f)}
                label={`Answer to ${f.place}`}
                onSent={() => setOpen(false)}
              />
            </div>
          )}
        </div>
      )}
    </>
  );
}
