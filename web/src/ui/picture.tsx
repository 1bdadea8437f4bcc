const FILES: Record<string, string> = import.meta.glob('./pictures/*.svg', {
  query: '?raw',
  import: 'default',
  eager: true,
});

/** The drawing inside each file, by name; it takes its colours from the page, so it is set into it rather than linked. */
const PICTURES = Object.fromEntries(
  Object.entries(FILES).map(([path, svg]) => [path.replace(/^.*\/|\.svg$/g, ''), svg.replace(/^<svg[^>]*>|<\/svg>\s*$/g, '')]),
);

export const PICTURE_NAMES = Object.keys(PICTURES).sort();

/** A drawn picture of goods. It only ever accompanies the name, so it is hidden from readers. */
export function Picture({ name, size }: { name: string | null | undefined; size: number }) {
  const drawing = PICTURES[name ?? 'box'] ?? PICTURES['box'] ?? '';
  return <svg className="pic" width={size} height={size} viewBox="0 0 64 64" aria-hidden dangerouslySetInnerHTML={{ __html: drawing }} />;
}
