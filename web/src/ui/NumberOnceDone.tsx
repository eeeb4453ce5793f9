import { useRef } from 'react';
import { NumberInput, type NumberInputProps } from './NumberInput.js';

/** A number that is taken when the person is done with it: each key of it sent would overtake the one before. */
export function NumberOnceDone({
  onTaken,
  ...field
}: Omit<NumberInputProps, 'onChange' | 'onDone'> & { readonly onTaken: (value: number) => void }) {
  const typed = useRef(field.value);
  return (
    <NumberInput
      {...field}
      onChange={(value) => {
        typed.current = value;
      }}
      onDone={() => {
        if (typed.current !== null && typed.current !== field.value) onTaken(typed.current);
      }}
    />
  );
}
