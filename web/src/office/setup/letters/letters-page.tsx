import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { ListPage, useBeside } from '../../../ui/list-page';
import { OpenRow } from '../../../ui/open-row';
import { Shown } from '../../../ui/states';
import { DenseTable } from '../../../ui/table';
import { CompanyMark } from './company-mark';

/** What customers are written, in the company's own words, and the mark that it is written under. */
export function LettersPage() {
  const beside = useBeside();
  const { name: open } = useParams();
  const query = useQuery({ queryKey: key('letters'), queryFn: () => ask(api.GET('/api/letters')) });
  return (
    <ListPage title="Letters to customers" width={460}>
      <CompanyMark />
      <Shown query={query}>
        {(letters) => (
          <DenseTable className="w-full">
            <thead>
              <tr>
                <th>Letter</th>
                {!beside && <th>Written</th>}
                <th>Words</th>
              </tr>
            </thead>
            <tbody>
              {letters.map((l) => (
                <OpenRow key={l.name} to={`/setup/letters/${l.name}`} open={l.name === open}>
                  <td className="whitespace-nowrap">{l.label}</td>
                  {!beside && <td className="mid">{l.when}</td>}
                  <td className={l.isOwn ? '' : 'mid'}>{l.isOwn ? 'your own' : 'as they came'}</td>
                </OpenRow>
              ))}
            </tbody>
          </DenseTable>
        )}
      </Shown>
    </ListPage>
  );
}
