import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Barcode, QrCode } from '../../../ui/barcode';
import { Button, TextButton } from '../../../ui/button';
import { ProblemNote } from '../../../ui/states';

type Person = Dto['PersonDto'];

/** What became of the mail, where it did not arrive. */
export function MailState({ person }: { person: Person }) {
  if (person.state !== 'invited') return null;
  if (!person.email) return <p className="mt-3">No mail address: hand over a link, or give out a PIN with the badge.</p>;
  if (person.mail?.state === 'done') return <p className="note mt-3">The invitation was mailed to {person.email}.</p>;
  if (person.mail?.why)
    return (
      <p className="mt-3">
        <b className="stamped">The invitation did not go out.</b> {person.mail.why}. Hand over a link, or give out a PIN with the badge.
      </p>
    );
  return <p className="note mt-3">The invitation is on its way to {person.email}.</p>;
}

/** The first key from hand to hand: a link, or a PIN to the badge. Each is told once. */
export function FirstKeys({ person }: { person: Person }) {
  const me = useMe();
  const params = { path: { id: person.id } };
  const link = useAct({ act: (_: void, once) => ask(api.POST('/api/people/{id}/link', { params, headers: once })) });
  const pin = useAct({ act: (_: void, once) => ask(api.POST('/api/people/{id}/pin', { params, headers: once })) });
  const hasKey = person.hasPassword || person.hasPin;
  // Another key is as good as being them: an owner's to give.
  if (person.state === 'left' || (hasKey && !me.data?.isOwner)) return null;
  return (
    <section className="mt-4" aria-label="Keys to hand over">
      <div className="flex gap-3 flex-wrap items-center">
        <Button type="button" disabled={link.isPending} onClick={() => link.mutate()}>
          A link to hand over
        </Button>
        <Button type="button" disabled={pin.isPending} onClick={() => pin.mutate()}>
          {person.hasPin ? 'Give out a new PIN' : 'Give out a PIN'}
        </Button>
        {hasKey && <span className="note">a new PIN signs them out everywhere</span>}
      </div>
      {link.data && (
        <div className="key-slip" role="status" ref={(slip) => slip?.scrollIntoView({ block: 'nearest' })}>
          <b>For {person.name}, told this once</b>
          <div className="flex gap-4 items-start mt-2">
            <QrCode text={link.data.link} size={120} says={`The link for ${person.name} as a QR code`} />
            <div>
              <p className="code break-all">{link.data.link}</p>
              <p className="note mt-2">Scan it with their phone, or send it by any way. It opens once, within three days.</p>
            </div>
          </div>
        </div>
      )}
      {pin.data && (
        <div className="key-slip" role="status" ref={(slip) => slip?.scrollIntoView({ block: 'nearest' })}>
          <b>{person.name}</b>
          <div className="flex gap-6 items-center mt-3">
            {person.badge && <Barcode code={person.badge} width={170} height={34} />}
            <span>
              PIN <b className="code text-[24px]">{pin.data.pin}</b>
            </span>
          </div>
          <p className="note mt-3">Scan the badge on a phone or table of the house, then type the PIN. It is told this once.</p>
          <TextButton type="button" onClick={() => window.print()}>
            Print this slip
          </TextButton>
        </div>
      )}
      <ProblemNote problem={link.error ?? pin.error} />
    </section>
  );
}
