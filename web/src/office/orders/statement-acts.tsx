import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { TextAnchor, TextButton } from '../../ui/button';
import { BlockHead } from '../../ui/page';
import { ProblemNote } from '../../ui/states';
import { PrintAt } from '../print-at';

/** What the customer owes: to look at, or by mail. */
export function StatementActs({ account, email }: { account: string; email: string }) {
  const query = useQuery({
    queryKey: key('statement', account),
    queryFn: () => ask(api.GET('/api/statements/{account}', { params: { path: { account } } })),
  });
  const send = useAct({
    act: (_: void, once) => ask(api.POST('/api/statements/{account}/send', { params: { path: { account } }, headers: once })),
  });
  const s = query.data;
  if (!s) return null;
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Owes {moneyText(micro(s.owed), s.currency)}</h2>
        <span className="note">
          {s.ages
            .filter((a) => Number(a.amount) !== 0)
            .map((a) => `${a.says.toLowerCase()} ${moneyText(micro(a.amount), s.currency)}`)
            .join(', ')}
        </span>
      </BlockHead>
      <ProblemNote problem={send.error} />
      <div className="flex gap-4 items-baseline mt-2">
        <TextAnchor href={`/api/statements/${account}/pdf`} target="_blank" rel="noreferrer">
          Statement
        </TextAnchor>
        <PrintAt paper="statement" code={account} says="it" />
        {email !== '' && s.rows.length > 0 && (
          <TextButton type="button" disabled={send.isPending || send.isSuccess} onClick={() => send.mutate()}>
            {send.isSuccess ? `On its way to ${email}` : 'Mail it'}
          </TextButton>
        )}
      </div>
    </>
  );
}
