import { useAct } from '../../api/use-act';
import { api, ask, type Dto } from '../../api/client';
import { NewSecret } from '../../ui/new-secret';
import { ProblemNote } from '../../ui/states';
import { TextButton } from '../../ui/button';

/** Whether the supplier's own system may send documents, and a new key for it, shown once. */
export function DocumentKey({ supplier: s }: { supplier: Pick<Dto['SupplierSheetDto'], 'code' | 'sendsDocuments'> }) {
  const give = useAct({
    act: (_: void, once) => ask(api.POST('/api/suppliers/{code}/document-key', { params: { path: { code: s.code } }, headers: once })),
  });
  return (
    <section className="mt-2" aria-label="Documents from its own system">
      <p>
        {s.sendsDocuments
          ? 'Its own system may send answers and despatch advices. '
          : 'Its answers and despatch advices are taken in by hand. '}
        <TextButton type="button" disabled={give.isPending} onClick={() => give.mutate()}>
          {s.sendsDocuments ? 'Give it a new key' : 'Give it a key'}
        </TextButton>
      </p>
      <NewSecret secret={give.data?.key}>
        It signs each document with HMAC-SHA256 in X-Signature and posts it to{' '}
        <span className="code">
          {window.location.origin}/api/suppliers/{s.code}/documents
        </span>
      </NewSecret>
      <ProblemNote problem={give.error} />
    </section>
  );
}
