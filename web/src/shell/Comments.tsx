import type { CaseComment, CommentPlace, CommentStage } from '@radiant/contract';
import type { ReactNode } from 'react';
import { useCase, useSentence, useToothLabel } from '../data/case-context.js';
import { moment } from '../ui/format.js';
import { CommentForm } from './CommentForm.js';

/** Remarks on plan and contour, by everybody who may see the case. */
export function Comments({
  stage,
  place,
  onSent,
  onShow,
  children,
}: {
  stage: CommentStage;
  /** Where the next one lies. */
  place?: CommentPlace | undefined;
  onSent?: () => void;
  /** Goes to the place of one. */
  onShow?: (place: CommentPlace) => void;
  /** How a place is chosen. */
  children?: ReactNode;
}) {
  const { detail } = useCase();
  const own = detail.comments.filter((c) => c.stage === stage);
  return (
    <section aria-label="Comments" className="mt-6 border-t border-hair pt-4">
      <h2 className="subtitle mb-2">Comments</h2>
      {own.length === 0 && <p className="mb-2 text-note text-ink-2">None yet.</p>}
      <ul className="mb-3 space-y-2.5">
        {own.map((c) => (
          <CommentItem key={c.id} comment={c} onShow={onShow} />
        ))}
      </ul>
      {children}
      <CommentForm stage={stage} place={place} label="Comment" {...(onSent && { onSent })} />
    </section>
  );
}

/** One remark, with its place where it is not read at that place anyway. */
export function CommentItem({
  comment: c,
  onShow,
}: {
  comment: CaseComment;
  onShow?: ((place: CommentPlace) => void) | undefined;
}) {
  const name = useToothLabel();
  const sentence = useSentence();
  return (
    <li className="text-note">
      {c.place && onShow && (
        <button type="button" className="how mr-1.5" onClick={() => c.place && onShow(c.place)}>
          {name(c.place.tooth)}, {sentence(c.place.words)}:
        </button>
      )}
      {c.body}
      <span className="block text-tiny text-ink-2">
        {c.by}, {c.role}, {moment(c.at)}
      </span>
    </li>
  );
}
