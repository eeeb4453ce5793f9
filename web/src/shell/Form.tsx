import { check, type FieldError } from '@radiant/contract';
import { type FormEvent, type ReactNode, useId, useState } from 'react';
import { ProblemError, sentenceOf } from '../data/api.js';

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
  children,
}: {
  type: new () => T;
  fields: readonly FieldSpec[];
  /** Turns the fields' texts into the class's content. */
  read?: (values: Record<string, string>) => object;
  send: (value: T) => Promise<unknown>;
  action: string;
  children?: ReactNode;
}) {
  const [values, setValues] = useState<Record<string, string>>(() =>
    Object.fromEntries(fields.map((f) => [f.name, f.initial ?? ''])),
  );
  const [errors, setErrors] = useState<readonly FieldError[]>([]);
  const [refusal, setRefusal] = useState<string>();
  const [busy, setBusy] = useState(false);
  const base = useId();

  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setRefusal(undefined);
    const { value, errors: found } = check(type, read ? read(values) : values);
    setErrors(found);
    if (found.length > 0) return;
    setBusy(true);
    try {
      await send(value);
    } catch (error) {
      const fieldErrors = error instanceof ProblemError ? error.problem.errors : undefined;
      if (fieldErrors) setErrors(fieldErrors);
      else setRefusal(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  const errorOf = (name: string) => errors.find((e) => e.field === name || e.field.endsWith(`.${name}`))?.message;
  return (
    <form onSubmit={submit} noValidate className="flex flex-col gap-4">
      {fields.map((f) => (
        <Field
          key={f.name}
          spec={f}
          id={`${base}${f.name}`}
          value={values[f.name] ?? ''}
          error={errorOf(f.name)}
          change={(v) => setValues((old) => ({ ...old, [f.name]: v }))}
        />
      ))}
      {refusal && (
        <p role="alert" className="text-stop">
          {refusal}
        </p>
      )}
      <div className="flex items-center gap-3">
        <button type="submit" className="btn" disabled={busy}>
          {busy ? 'One moment …' : action}
        </button>
        {children}
      </div>
    </form>
  );
}

function Field({
  spec,
  id,
  value,
  error,
  change,
}: {
  spec: FieldSpec;
  id: string;
  value: string;
  error: string | undefined;
  change: (v: string) => void;
}) {
  const shared = {
    id,
    value,
    className: 'field',
    'aria-invalid': error ? true : undefined,
    'aria-describedby': error ? `${id}-error` : spec.hint ? `${id}-hint` : undefined,
    onChange: (e: { target: { value: string } }) => change(e.target.value),
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
