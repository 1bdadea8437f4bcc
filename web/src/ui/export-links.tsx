import { TextAnchor } from './button'; /** A list as a file, with the filter that it is shown with. */
export function ExportLinks({ list, query = {} }: { list: string; query?: Record<string, string | undefined> }) {
  const params = new URLSearchParams(Object.entries(query).filter((e): e is [string, string] => Boolean(e[1])));
  const search = params.size > 0 ? `?${params}` : '';
  return (
    <span className="note flex items-baseline gap-2 whitespace-nowrap">
      Export
      {(['csv', 'xlsx'] as const).map((kind) => (
        <TextAnchor key={kind} href={`/api/exports/lists/${list}.${kind}${search}`} download>
          {kind.toUpperCase()}
        </TextAnchor>
      ))}
    </span>
  );
}
