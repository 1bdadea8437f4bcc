import { Picture } from './picture';

/** An item's own photograph where there is one, otherwise its drawing. */
export function ItemPicture({
  item,
  size,
  large = false,
}: {
  item: { sku: string; picture: string; pictureMark: string | null };
  size: number;
  large?: boolean;
}) {
  if (!item.pictureMark) return <Picture name={item.picture} size={size} />;
  const source = `/api/items/${encodeURIComponent(item.sku)}/picture?size=${large ? 'large' : 'thumb'}&v=${item.pictureMark}`;
  return <img src={source} width={size} height={size} alt="" className="object-contain" style={{ width: size, height: size }} />;
}
