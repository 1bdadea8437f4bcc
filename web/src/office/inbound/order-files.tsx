import { useAct } from '../../api/use-act';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { sendFile } from '../../api/send-file';
import { day, sizeWords } from '../../ui/format';
import { ProblemNote } from '../../ui/states';
import { TextAnchor, TextButton, TextLabel } from '../../ui/button';

/** Files kept with an order: quotations, drawings, certificates. */
export function OrderFiles({ order }: { order: Dto['PurchaseOrderDto'] }) {
  const me = useMe();
  const add = useAct({
    act: (file: File, once) =>
      sendFile('POST', `/api/purchase-orders/${order.code}/files?name=${encodeURIComponent(file.name)}`, file, once),
  });
  const remove = useAct({
    act: (id: number, once) => ask(api.DELETE('/api/order-files/{id}', { params: { path: { id } }, headers: once })),
  });
  const mayKeep = me.data?.rights.includes('buy') ?? false;
  if (order.files.length === 0 && !mayKeep) return null;
  return (
    <section className="mt-4" aria-label="Files">
      <ul>
        {order.files.map((f) => (
          <li key={f.id} className="flex gap-3 items-baseline">
            <TextAnchor href={`/api/order-files/${f.id}`} download={f.name}>
              {f.name}
            </TextAnchor>
            <span className="note">
              {sizeWords(f.bytes)}, {f.by}, {day(f.at)}
            </span>
            {mayKeep && (
              <TextButton type="button" disabled={remove.isPending} onClick={() => remove.mutate(f.id)}>
                take away
              </TextButton>
            )}
          </li>
        ))}
      </ul>
      {mayKeep && (
        <TextLabel className="cursor-pointer mt-1 inline-block">
          {add.isPending ? 'Keeping it' : 'Keep a file with it'}
          <input
            type="file"
            className="sr-only"
            disabled={add.isPending}
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) add.mutate(file);
              e.target.value = '';
            }}
          />
        </TextLabel>
      )}
      <ProblemNote problem={add.error ?? remove.error} />
    </section>
  );
}
