import { useEffect, useRef, useState } from 'react';

/** Who stays in a field and has pressed no key for so long has finished a number. House value. */
const STILL_MS = 3000;

/** Whether a question that stands may be asked: not while a field is typed in, or it would take the next keys. */
export function useAfterTyping(stands: boolean): boolean {
  const last = useRef(Number.NEGATIVE_INFINITY);
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    const typed = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement) last.current = e.timeStamp;
    };
    document.addEventListener('keydown', typed, true);
    return () => document.removeEventListener('keydown', typed, true);
  }, []);
  useEffect(() => {
    if (!stands) return;
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      const left = last.current + STILL_MS - performance.now();
      if (left <= 0) setAsked(true);
      else timer = setTimeout(look, left);
    };
    // Who leaves the field has finished.
    const left = () => {
      clearTimeout(timer);
      last.current = Number.NEGATIVE_INFINITY;
      look();
    };
    document.addEventListener('focusout', left, true);
    look();
    return () => {
      document.removeEventListener('focusout', left, true);
      clearTimeout(timer);
      setAsked(false);
    };
  }, [stands]);
  return stands && asked;
}
