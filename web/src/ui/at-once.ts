import { useRef, useState } from 'react';

/**
 * A value that is kept as soon as it is chosen. What was chosen shows at once, also in the turn of the click, and stays until
 * it is kept and has been read again; where it is refused, what stands there shows again. Choices are sent one after another.
 */
export function useAtOnce<T>(kept: T, keep: (value: T) => Promise<unknown>): [T, (value: T) => void] {
  const [chosen, setChosen] = useState<{ value: T } | null>(null);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const choose = (value: T) => {
    setChosen({ value });
    const mine = turn.current
      .then(() => keep(value))
      .catch(() => undefined)
      .then(() => {
        if (turn.current === mine) setChosen(null);
      });
    turn.current = mine;
  };
  return [chosen ? chosen.value : kept, choose];
}
