import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { api, ask, at, type Dto, ProblemError } from '../api/client';
import { key } from '../api/keys';
import { useSite } from '../api/queries';
import { useChosenScale } from '../flow/device-choices';

/** A scale is asked again so often while goods are put onto it. */
const EVERY_MS = 700;

export interface Scale {
  scale: Dto['ScaleDto'] | undefined;
  /** What lies on it now; the reason where it does not answer. */
  weigh: () => Promise<Dto['ReadingDto'] | ProblemError>;
  /** A steady weight, while the scale is watched; null until there is one. */
  grams: number | null;
}

/** The scales of the site that this device works at. */
export function useScales() {
  const { site } = useSite();
  return useQuery({
    queryKey: key('scales', site?.id),
    queryFn: () => ask(api.GET('/api/scales', at(site))),
    enabled: site !== undefined,
    staleTime: 60_000,
  });
}

/** The scale of this packing table, asked by itself while `watched`. */
export function useScale(watched: boolean): Scale {
  const scales = useScales();
  const [scale] = useChosenScale(scales.data);
  const id = scale?.id;
  const [grams, setGrams] = useState<number | null>(null);
  const weigh = useCallback(
    () =>
      ask(api.GET('/api/scales/{id}/reading', { params: { path: { id: id ?? 0 } } })).catch((thrown: unknown) =>
        thrown instanceof ProblemError ? thrown : new ProblemError(503, 'scale', 'No network. Type the weight'),
      ),
    [id],
  );
  useEffect(() => {
    if (!watched || id === undefined) return;
    const timer = window.setInterval(() => {
      void weigh().then((said) => setGrams(said instanceof ProblemError || !said.isSteady ? null : said.grams));
    }, EVERY_MS);
    return () => {
      window.clearInterval(timer);
      setGrams(null);
    };
  }, [watched, id, weigh]);
  return { scale, weigh, grams: watched ? grams : null };
}
