/** The page of a mail: the company's mark and name over the same words, for those who read mail with pictures. */
export function htmlOf(text: string, head: { name: string; address: string; mark: { width: number; height: number } | null }): string {
  const paragraphs = text
    .split('\n\n')
    .map((p) => `<p style="margin:0 0 14px">${escaped(p).replaceAll('\n', '<br>')}</p>`)
    .join('\n');
  const mark = head.mark
    ? `<img src="cid:mark" alt="${escaped(head.name)}" width="${head.mark.width}" height="${head.mark.height}" style="display:block;margin:0 0 18px">`
    : '';
  const foot = [head.name, head.address].filter(Boolean).map(escaped).join(', ');
  return `<!doctype html>
<html lang="en"><body style="margin:0;padding:24px;background:#ffffff;color:#141e32;font:15px/22px sans-serif">
<div style="max-width:560px">
${mark}
${paragraphs}
${foot ? `<p style="margin:22px 0 0;padding-top:8px;border-top:1px solid #8c8579;font-size:12px;line-height:17px;color:#575f6f">${foot}</p>` : ''}
</div></body></html>`;
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const escaped = (text: string) => text.replaceAll(/[&<>"']/g, (sign) => SIGNS[sign] ?? sign);
