import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/**
 * What the address asks for, and a way to change it. Two changes in one breath both count: the router shows the first only a moment
 * later, and the second would be made to what was there before.
 */
export function useAddress(): [URLSearchParams, (change: (params: URLSearchParams) => URLSearchParams) => void] {
  const [params, setParams] = useSearchParams();
  const wanted = useRef(params);
  useEffect(() => {
    wanted.current = params;
  }, [params]);
  const change = (make: (params: URLSearchParams) => URLSearchParams) => {
    wanted.current = make(new URLSearchParams(wanted.current));
    setParams(wanted.current, { replace: true });
  };
  return [params, change];
}

/** The address with one thing changed; nothing is left out of it where there is nothing to say. */
export function withParam(params: URLSearchParams, key: string, value: string): URLSearchParams {
  if (value) params.set(key, value);
  else params.delete(key);
  return params;
}
