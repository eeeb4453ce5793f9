import type { CommentStage } from '@radiant/contract';
import { useId } from 'react';
import { useForm } from 'react-hook-form';
import { api, sentenceOf } from '../data/api.js';
import { useCase } from '../data/case-context.js';
import { useUnsent } from '../data/unsent-text.js';
import { moment } from '../ui/format.js';

/** Remarks on plan and contour, by everybody who may see the case. */
export function Comments({ stage }: { stage: CommentStage }) {
  const { detail, refresh } = useCase();
  const unsent = useUnsent<string>(`comment ${detail.id} ${stage}`);
  const { register, handleSubmit, reset, setError, watch, formState } = useForm({
    defaultValues: { body: unsent.kept ?? '' },
  });
  const { isSubmitting, errors } = formState;
  const id = useId();
  const own = detail.comments.filter((c) => c.stage === stage);
  const send = handleSubmit(async ({ body }) => {
    try {
      await api.post(`/cases/${detail.id}/comments`, { stage, body: body.trim() });
      unsent.drop();
      reset({ body: '' });
      await refresh();
    } catch (error) {
      setError('body', { message: sentenceOf(error) });
    }
  });
  return (
    <section aria-label="Comments" className="mt-6 border-t border-hair pt-4">
      <h2 className="subtitle mb-2">Comments</h2>
      {own.length === 0 && <p className="mb-2 text-note text-ink-2">None yet.</p>}
      <ul className="mb-3 space-y-2.5">
        {own.map((c) => (
          <li key={c.id} className="text-note">
            {c.body}
            <span className="block text-tiny text-ink-2">
              {c.by}, {c.role}, {moment(c.at)}
            </span>
          </li>
        ))}
      </ul>
      <form onSubmit={send} className="flex gap-2">
        <label htmlFor={id} className="sr-only">
          Comment
        </label>
        <input
          id={id}
          className="field"
          placeholder="Write a comment"
          maxLength={2000}
          {...register('body', { onChange: (e) => unsent.keep(e.target.value) })}
        />
        <button type="submit" className="btn btn-ghost px-3" disabled={isSubmitting || watch('body').trim() === ''}>
          Send
        </button>
      </form>
      {errors.body?.message && (
        <p role="alert" className="mt-1 text-note text-stop">
          {errors.body.message}
        </p>
      )}
    </section>
  );
}
