import { PICTURES } from './pictures';

/** A drawn picture of goods. It only ever accompanies the name, so it is hidden from readers. */
export function Picture({ name, size }: { name: string | null | undefined; size: number }) {
  return (
    <svg className="pic" width={size} height={size} viewBox="0 0 64 64" aria-hidden>
      {PICTURES[name ?? 'box'] ?? PICTURES['box']}
    </svg>
  );
}

export const PICTURE_NAMES = Object.keys(PICTURES);
