import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { AskedChange } from '../../../ui/asked-change';
import { plural, when } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { CheckField, SelectField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { NotThere, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote, Shown } from '../../../ui/states';
import { FirstKeys, MailState } from './first-keys';
import { dutyWords } from './people-page';
import { Button, ButtonLink } from '../../../ui/button';
import { BlockHead } from '../../../ui/page';
import { DenseTable, GlyphCell } from '../../../ui/table';

type Person = Dto['PersonDto'];
type Duty = Dto['EditPersonDto']['duties'][number];
const DUTIES: readonly Duty[] = [
  'owner',
  'buyer',
  'order-desk',
  'receiver',
  'storer',
  'picker',
  'packer',
  'counter',
  'reviewer',
  'bookkeeper',
  'set-up',
];

interface Values {
  name: string;
  email: string;
  duties: Duty[];
  siteIds: string[];
  seesCosts: boolean;
  usualSiteId: string;
  usualDuty: string;
  active: boolean;
}

/** Invites somebody, or changes who is here: duties, sites, whether they see costs, where they usually work. */
export function PersonSheet() {
  const { id } = useParams();
  const me = useMe();
  const query = useQuery({ queryKey: key('people'), queryFn: () => ask(api.GET('/api/people')) });
  if (!me.data) return null;
  if (id === undefined) return <Form person={undefined} me={me.data} />;
  return (
    <ShownSheet query={query} back="/setup/people">
      {(list) => {
        const person = list.find((p) => p.id === Number(id));
        return person ? (
          <Form key={person.id} person={person} me={me.data} />
        ) : (
          <NotThere says="Nobody has this number" back="/setup/people" />
        );
      }}
    </ShownSheet>
  );
}

const FRESH = { name: '', email: '', duties: [], seesCosts: false, usualSiteId: '', usualDuty: '', active: true } satisfies Partial<Values>;
const valuesOf = (person: Person): Values => ({
  name: person.name,
  email: person.email,
  duties: person.duties as Duty[],
  siteIds: person.siteIds.map(String),
  seesCosts: person.seesCosts,
  usualSiteId: String(person.usualSiteId ?? ''),
  usualDuty: person.usualDuty ?? '',
  active: person.state !== 'left',
});
const bodyOf = (v: Values): Dto['EditPersonDto'] => ({
  name: v.name,
  email: v.email,
  duties: v.duties,
  siteIds: v.siteIds.map(Number),
  seesCosts: v.seesCosts,
  usualSiteId: v.usualSiteId ? Number(v.usualSiteId) : null,
  usualDuty: (v.usualDuty || null) as Duty | null,
  active: v.active,
});
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  name: { label: 'Name' },
  email: { label: 'E-mail' },
  duties: { label: 'Duties' },
  siteIds: { label: 'Sites' },
  seesCosts: { label: 'May see costs' },
  usualSiteId: { label: 'Usually works at' },
  usualDuty: { label: 'Usually does' },
  active: { label: 'Works here' },
};

function Form({ person, me }: { person: Person | undefined; me: Dto['MeDto'] }) {
  const navigate = useNavigate();
  const record = useRecord<Values, number>({
    source: {
      values: person ? valuesOf(person) : { ...FRESH, siteIds: me.sites.map((s) => String(s.id)) },
      version: person?.version,
    },
    save: async (v, version, once) => {
      const body = bodyOf(v);
      if (!person || version === undefined) return (await ask(api.POST('/api/people', { body, headers: once }))).id;
      await ask(api.PUT('/api/people/{id}', { params: { path: { id: person.id } }, headers: { ...once, ...ifMatch(version) }, body }));
      return person.id;
    },
    onSaved: (id) => void navigate(`/setup/people/${id}`),
  });
  const { register, control } = record.form;
  const [duties, siteIds, email] = useWatch({ control, name: ['duties', 'siteIds', 'email'] });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={person ? `people/${person.badge ?? person.id}` : 'people/new'}
      title={person?.name ?? 'Invite somebody'}
      code={person?.badge ?? undefined}
      back="/setup/people"
      keep={person ? 'Keep' : email ? 'Send the invitation' : 'Set them up'}
      above={
        person && (
          <>
            <Waybill
              cells={[
                { cap: 'State', value: { here: 'works here', invited: 'invited', left: 'has left' }[person.state] ?? person.state },
                { cap: 'Signed in on', value: plural(person.sessions, 'device', 'devices') },
                { cap: 'Last act', value: person.lastAct ? when(person.lastAct) : 'none yet' },
                { cap: 'Duties', value: dutyWords(person.duties) || 'none' },
              ]}
            />
            <MailState person={person} />
            {person.asked && <Asked person={person} asked={person.asked} me={me} />}
          </>
        )
      }
      beneath={
        person && (
          <>
            <Acts person={person} />
            <FirstKeys person={person} />
            <TheirTape id={person.id} />
          </>
        )
      }
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField name="name" label="Name" autoFocus={!person} />
        <TextField name="email" label="E-mail; the floor needs none" type="email" />
      </div>
      <fieldset className="choices">
        <legend>Duties</legend>
        {DUTIES.map((d) => (
          <label key={d}>
            <input type="checkbox" value={d} {...register('duties')} /> {d.replace('-', ' ')}
          </label>
        ))}
      </fieldset>
      <fieldset className="choices">
        <legend>Sites</legend>
        {me.sites.map((s) => (
          <label key={s.id}>
            <input type="checkbox" value={String(s.id)} {...register('siteIds')} /> {s.name}
          </label>
        ))}
      </fieldset>
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField name="usualSiteId" label="Usually works at">
          <option value="">no site in particular</option>
          {me.sites
            .filter((s) => siteIds.includes(String(s.id)))
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </SelectField>
        <SelectField name="usualDuty" label="Usually does">
          <option value="">nothing in particular</option>
          {duties.map((d) => (
            <option key={d} value={d}>
              {d.replace('-', ' ')}
            </option>
          ))}
        </SelectField>
      </div>
      {me.seesCosts && <CheckField name="seesCosts" label="May see costs" />}
      {person && <CheckField name="active" label="Works here; without this they are signed out and cannot come in" />}
    </RecordForm>
  );
}

function Asked({ person, asked, me }: { person: Person; asked: Dto['AskedChangeDto']; me: Dto['MeDto'] }) {
  const answer = useAct({
    act: (agree: boolean, once) =>
      ask(api.POST('/api/people/{id}/change', { params: { path: { id: person.id } }, body: { agree }, headers: once })),
  });
  const mayAgree = me.isOwner || me.id === person.id;
  const refuse = mayAgree ? 'Refuse' : asked.by === me.name ? 'Take it back' : null;
  return (
    <AskedChange
      asked={asked}
      whose="their"
      {...(mayAgree ? { agree: () => answer.mutate(true) } : {})}
      refuse={refuse === null ? undefined : { says: refuse, act: () => answer.mutate(false) }}
      isBusy={answer.isPending}
      problem={answer.error}
    />
  );
}

function Acts({ person }: { person: Person }) {
  const params = { path: { id: person.id } };
  const remind = useAct({ act: (_: void, once) => ask(api.POST('/api/people/{id}/remind', { params, headers: once })) });
  const signOut = useAct({ act: (_: void, once) => ask(api.POST('/api/people/{id}/sign-out', { params, headers: once })) });
  return (
    <div className="flex gap-3 mt-4 flex-wrap items-center">
      {person.email && (
        <Button type="button" disabled={remind.isPending || person.state === 'left'} onClick={() => remind.mutate()}>
          {person.state === 'invited' ? 'Mail the invitation again' : 'Mail a link for a new password'}
        </Button>
      )}
      <Button type="button" disabled={signOut.isPending || person.sessions === 0} onClick={() => signOut.mutate()}>
        Sign out everywhere
      </Button>
      {person.badge && (
        <ButtonLink to={`/setup/labels/print?subject=badge&codes=${person.badge}`} data-print>
          Print the badge
        </ButtonLink>
      )}
      {remind.isSuccess && <span className="note">The mail is on its way.</span>}
      <ProblemNote problem={remind.error ?? signOut.error} />
    </div>
  );
}

/** What somebody did, newest first. */
function TheirTape({ id }: { id: number }) {
  const query = useQuery({
    queryKey: key('tape', 'person', id),
    queryFn: () => ask(api.GET('/api/tape', { params: { query: { person: String(id), limit: '40' } as never } })),
  });
  return (
    <>
      <BlockHead className="mt-5">
        <h2>What they did</h2>
        <span className="note">newest first</span>
      </BlockHead>
      <Shown query={query} rows={4}>
        {({ entries }) =>
          entries.length === 0 ? (
            <p className="mid mt-2">Nothing yet.</p>
          ) : (
            <DenseTable>
              <tbody>
                {entries.map((e) => (
                  <tr key={e.id}>
                    <td className="mid">{when(e.at)}</td>
                    <GlyphCell>
                      <Glyph name={e.glyph as GlyphName} size={12} />
                    </GlyphCell>
                    <td className="max-w-[320px] overflow-hidden text-ellipsis">{e.title}</td>
                    <td className="mid max-w-[200px] overflow-hidden text-ellipsis">{e.detail}</td>
                    <td className="mid">{e.how}</td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
    </>
  );
}
