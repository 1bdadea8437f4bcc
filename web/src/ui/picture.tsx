import { useDrawings } from '../api/queries';

/** A drawn picture of goods. It only ever accompanies the name, so it is hidden from readers. */
export function Picture({ name, size }: { name: string | null | undefined; size: number }) {
  const drawings = useDrawings();
  const drawing = drawings.get(name ?? 'box') ?? drawings.get('box') ?? '';
  return <svg className="pic" width={size} height={size} viewBox="0 0 64 64" aria-hidden dangerouslySetInnerHTML={{ __html: drawing }} />;
}
