import { CASE_NAME_MOST, CaseCopy, type CaseDetail, check } from '@radiant/contract';
import { useState } from 'react';
import { api, sentenceOf } from '../data/api.js';
import { useCase } from '../data/case-context.js';

/** The case's name; who keeps records changes it where it stands. */
export function CaseName() {
  const { detail, who, refresh } = useCase();
  const [text, setText] = useState<string>();
  const [refusal, setRefusal] = useState<string>();
  const style = 'font-serif text-head font-semibold leading-none tracking-tight';
  if (who.role === 'technician') return <h1 className={`mb-1.5 truncate ${style}`}>{detail.name}</h1>;
  const leave = () => {
    setText(undefined);
    setRefusal(undefined);
  };
  const done = async () => {
    const name = text?.trim() ?? '';
    if (name === detail.name) return leave();
    const { errors } = check(CaseCopy, { name });
    if (errors[0]) return setRefusal(errors[0].message);
    try {
      await api.patch<CaseDetail>(`/cases/${detail.id}`, { name });
      await refresh();
      leave();
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  return (
    <>
      <h1 className="mb-1 leading-none">
        {text === undefined ? (
          <button
            type="button"
            title="Give the case another name"
            aria-label={`${detail.name}, change the name`}
            className={`max-w-full truncate rounded pb-1 text-left hover:text-plum ${style}`}
            onClick={() => setText(detail.name)}
          >
            {detail.name}
          </button>
        ) : (
          <input
            // biome-ignore lint/a11y/noAutofocus: the hand has just asked to write here
            autoFocus
            aria-label="Name of the case"
            aria-invalid={!!refusal}
            className="field h-[32px] font-serif text-lead"
            maxLength={CASE_NAME_MOST}
            value={text}
            onFocus={(e) => e.target.select()}
            onChange={(e) => setText(e.target.value)}
            onBlur={() => void done()}
            onKeyDown={(e) => {
              if (e.key === 'Enter') void done();
              if (e.key === 'Escape') leave();
            }}
          />
        )}
      </h1>
      {refusal && (
        <p role="alert" className="text-note text-stop">
          {refusal}
        </p>
      )}
    </>
  );
}
