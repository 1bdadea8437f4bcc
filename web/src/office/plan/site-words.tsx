import { useSite } from '../../api/queries';
import { Words } from '../../ui/field';

/** The sites that can be planned for, as words; nothing where there is one. */
export function SiteWords() {
  const { site, sites, choose } = useSite();
  if (sites.length < 2) return null;
  return (
    <Words
      label="Site"
      value={String(site?.id ?? '')}
      words={sites.map((s) => ({ value: String(s.id), says: s.name }))}
      onChange={(id) => choose(Number(id))}
    />
  );
}
