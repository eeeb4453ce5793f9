import { useEffect, useRef, useState } from 'react';

/** Who has pressed no key in a field for so long has finished a number. House value. */
const STILL_MS = 1000;

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
    look();
    return () => {
      clearTimeout(timer);
      setAsked(false);
    };
  }, [stands]);
  return stands && asked;
}
