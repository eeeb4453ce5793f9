import type { CommentPlace, CommentStage } from '@radiant/contract';
import { useId } from 'react';
import { useForm } from 'react-hook-form';
import { api, sentenceOf } from '../data/api.js';
import { useCase } from '../data/case-context.js';
import { useUnsent } from '../data/unsent-text.js';

/** A remark being written, on a stage or on one place of it; kept until it is sent. */
export function CommentForm({
  stage,
  place,
  label,
  onSent,
}: {
  stage: CommentStage;
  place?: CommentPlace | undefined;
  label: string;
  onSent?: () => void;
}) {
  const { detail, refresh } = useCase();
  const where = place ? ` ${place.tooth} ${place.check ?? ''} ${place.check ? place.words : ''}` : '';
  const unsent = useUnsent<string>(`comment ${detail.id} ${stage}${where}`);
  const { register, handleSubmit, reset, setError, watch, formState } = useForm({
    defaultValues: { body: unsent.kept ?? '' },
  });
  const { isSubmitting, errors } = formState;
  const id = useId();
  const send = handleSubmit(async ({ body }) => {
    try {
      await api.post(`/cases/${detail.id}/comments`, { stage, body: body.trim(), ...(place && { place }) });
      unsent.drop();
      reset({ body: '' });
      onSent?.();
      await refresh();
    } catch (error) {
      setError('body', { message: sentenceOf(error) });
    }
  });
  return (
    <>
      <form onSubmit={send} className="flex gap-2">
        <label htmlFor={id} className="sr-only">
          {label}
        </label>
        <input
          id={id}
          className="field"
          placeholder={`Write ${label === 'Comment' ? 'a comment' : 'an answer'}`}
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
    </>
  );
}
