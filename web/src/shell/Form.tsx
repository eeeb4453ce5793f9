import { check, type FieldError } from '@radiant/contract';
import { type ReactNode, useId } from 'react';
import { type UseFormRegisterReturn, useForm } from 'react-hook-form';
import { ProblemError, sentenceOf } from '../data/api.js';
import { useUnsent } from '../data/unsent-text.js';

export interface FieldSpec {
  readonly name: string;
  readonly label: string;
  readonly type?:
    | 'text'
    | 'email'
    | 'password'
    | 'number'
    | 'date'
    | 'textarea'
    | { readonly options: readonly (readonly [string, string])[] };
  readonly autoComplete?: string;
  readonly hint?: string;
  readonly initial?: string;
}

/**
 * A form over one contract class: checked here with the class that the server uses, and again there; each refusal
 * stands at its field, and nothing typed is lost.
 */
export function Form<T extends object>({
  type,
  fields,
  read,
  send,
  action,
  place,
  children,
}: {
  type: new () => T;
  fields: readonly FieldSpec[];
  /** Turns the fields' texts into the class's content. */
  read?: (values: Record<string, string>) => object;
  send: (value: T) => Promise<unknown>;
  action: string;
  /** Where it stands, for a form in a dialog: closed by Esc and opened again it has what was typed. */
  place?: string;
  children?: ReactNode;
}) {
  const base = useId();
  const names = fields.map((f) => f.name);
  const unsent = useUnsent<Record<string, string>>(place);
  const { register, handleSubmit, setError, formState, getValues } = useForm<Record<string, string>>({
    defaultValues: Object.fromEntries(fields.map((f) => [f.name, unsent.kept?.[f.name] ?? f.initial ?? ''])),
    shouldFocusError: true,
  });
  const { errors, isSubmitting } = formState;
  /** Each refusal stands at its field; one that belongs to none, below them. */
  const refuse = (found: readonly FieldError[]) => {
    for (const e of found) {
      const name = names.find((n) => e.field === n || e.field.endsWith(`.${n}`));
      setError(name ?? 'root', { message: e.message }, { shouldFocus: found[0] === e });
    }
  };
  const submit = handleSubmit(async (values) => {
    const { value, errors: found } = check(type, read ? read(values) : values);
    if (found.length > 0) return refuse(found);
    try {
      await send(value);
      unsent.drop();
    } catch (error) {
      const told = error instanceof ProblemError ? error.problem.errors : undefined;
      refuse(told ?? [{ field: 'root', message: sentenceOf(error) }]);
    }
  });
  return (
    <form onSubmit={submit} onChange={() => unsent.keep(getValues())} noValidate className="flex flex-col gap-4">
      {fields.map((f) => (
        <Field
          key={f.name}
          spec={f}
          id={`${base}${f.name}`}
          error={errors[f.name]?.message}
          registered={register(f.name)}
        />
      ))}
      {errors.root?.message && (
        <p role="alert" className="text-stop">
          {errors.root.message}
        </p>
      )}
      <div className="flex items-center gap-3">
        <button type="submit" className="btn" disabled={isSubmitting}>
          {isSubmitting ? 'One moment …' : action}
        </button>
        {children}
      </div>
    </form>
  );
}

function Field({
  spec,
  id,
  error,
  registered,
}: {
  spec: FieldSpec;
  id: string;
  error: string | undefined;
  registered: UseFormRegisterReturn;
}) {
  const shared = {
    ...registered,
    id,
    className: 'field',
    'aria-invalid': error ? true : undefined,
    'aria-describedby': error ? `${id}-error` : spec.hint ? `${id}-hint` : undefined,
  } as const;
  const type = spec.type ?? 'text';
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-note text-ink-2">
        {spec.label}
      </label>
      {typeof type === 'object' ? (
        <select {...shared}>
          {type.options.map(([v, word]) => (
            <option key={v} value={v}>
              {word}
            </option>
          ))}
        </select>
      ) : type === 'textarea' ? (
        <textarea {...shared} className="field h-20 py-2" />
      ) : (
        <input {...shared} type={type} autoComplete={spec.autoComplete ?? 'off'} />
      )}
      {error ? (
        <p id={`${id}-error`} className="mt-1 text-note text-stop">
          {error}
        </p>
      ) : spec.hint ? (
        <p id={`${id}-hint`} className="mt-1 text-note text-ink-2">
          {spec.hint}
        </p>
      ) : null}
    </div>
  );
}
