import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe, useSite } from '../../../api/queries';
import { afresh, useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { plural } from '../../../ui/format';
import { Input, Select } from '../../../ui/input';
import { Acts } from '../../../ui/page';
import { Sheet } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { DRAWN_BY, wordsOf } from './count-words';

type By = Dto['DrawUpDto']['by'];
const USUAL_MOST = 100;

/** Draws a count up: what of, how it is counted; what it comes to is shown before. */
export function CountForm() {
  const me = useMe();
  const navigate = useNavigate();
  const { site } = useSite();
  const [siteId, setSite] = useState<number | null>(null);
  const at = siteId ?? site?.id ?? 0;
  const [by, setBy] = useState<By>('area');
  const [areas, setAreas] = useState<readonly string[]>([]);
  const [text, setText] = useState('');
  const [most, setMost] = useState(String(USUAL_MOST));
  const [except, setExcept] = useState('');
  const [title, setTitle] = useState('');
  const [blind, setBlind] = useState(true);
  const [scanEach, setScanEach] = useState(false);
  const choices = useQuery({
    queryKey: key('count-choices', at),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/count-choices', { params: { path: { siteId: at } } })),
    enabled: at > 0,
  });
  const way = DRAWN_BY.find((d) => d.by === by) ?? DRAWN_BY[0];
  const words = by === 'area' ? [...areas] : wordsOf(text);
  const body: Dto['DrawUpDto'] = {
    siteId: at,
    by,
    words,
    except: wordsOf(except),
    most: Number(most) || USUAL_MOST,
    title,
    blind,
    scanEach,
  };
  const isRanked = by === 'plan' || by === 'value';
  const ready = at > 0 && (isRanked || by === 'suspicion' || words.length > 0);
  const preview = useQuery({
    queryKey: key('count-choices', 'preview', JSON.stringify({ ...body, title: '', blind: true, scanEach: false })),
    queryFn: () => ask(api.POST('/api/counts/preview', { body, headers: afresh() })),
    enabled: ready,
    placeholderData: (was) => was,
    retry: false,
  });
  const draw = useAct({
    act: (_: void, once) => ask(api.POST('/api/counts', { body, headers: once })),
    onDone: ({ code }) => navigate(`/shelves/counts/${code}`),
  });
  const found = ready ? preview.data : undefined;
  return (
    <Sheet address="shelves/counts/new" title="Draw up a count" back="/shelves/counts">
      <div className="grid gap-4 mt-3" style={{ maxWidth: 640 }}>
        <div className="grid gap-4 sm:grid-cols-2">
          {(me.data?.sites.length ?? 0) > 1 && (
            <Field label="Site">
              <Select value={at} onChange={(e) => setSite(Number(e.target.value))}>
                {me.data?.sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </Select>
            </Field>
          )}
          <Field label="What of">
            <Select autoFocus value={by} onChange={(e) => setBy(e.target.value as By)}>
              {DRAWN_BY.map((d) => (
                <option key={d.by} value={d.by}>
                  {d.says}
                </option>
              ))}
            </Select>
          </Field>
        </div>
        <p className="mid">
          {way?.about}
          {by === 'plan' && choices.data && ` ${plural(choices.data.due, 'lot of goods is', 'lots of goods are')} due now.`}
        </p>
        {by === 'area' && (
          <fieldset className="flex flex-wrap gap-x-5 gap-y-2">
            <legend className="cap mb-1">Which</legend>
            {choices.data?.areas.map((a) => (
              <label key={a.area} className="flex gap-2 items-center">
                <input
                  type="checkbox"
                  checked={areas.includes(a.area)}
                  onChange={(e) => setAreas(e.target.checked ? [...areas, a.area] : areas.filter((x) => x !== a.area))}
                />
                {a.area} <span className="mid">{plural(a.bins, 'bin', 'bins')}</span>
              </label>
            ))}
            {choices.data?.areas.length === 0 && (
              <span className="mid">No aisle or zone has bins here. Choose bins or items, or build aisles under Bins and places.</span>
            )}
          </fieldset>
        )}
        {way?.asks && (
          <Field label={way.asks}>
            <Input value={text} placeholder="apart by comma" onChange={(e) => setText(e.target.value)} />
          </Field>
        )}
        {isRanked && (
          <Field label={by === 'plan' ? 'At most so many lots of goods' : 'How many bins'}>
            <Input className="num w-[110px]" inputMode="numeric" value={most} onChange={(e) => setMost(e.target.value)} />
          </Field>
        )}
        <Field label="Leave out these bins">
          <Input value={except} placeholder="none; apart by comma" onChange={(e) => setExcept(e.target.value)} />
        </Field>
        <Field label="Called">
          <Input value={title} maxLength={120} placeholder="as it is chosen" onChange={(e) => setTitle(e.target.value)} />
        </Field>
        <label className="flex gap-2 items-center">
          <input type="checkbox" checked={!blind} onChange={(e) => setBlind(!e.target.checked)} />
          Show whoever counts what the books have
        </label>
        <label className="flex gap-2 items-center">
          <input type="checkbox" checked={scanEach} onChange={(e) => setScanEach(e.target.checked)} />
          Every piece is scanned, no number keyed
        </label>
        <p role="status">
          {found && (
            <>
              <b>
                {plural(found.bins, 'bin', 'bins')} with {plural(found.goods, 'lot of goods', 'lots of goods')}
              </b>
              {found.elsewhere.length > 0 && (
                <span className="mid">
                  , without {plural(found.elsewhere.length, 'bin', 'bins')} that {found.elsewhere.length === 1 ? 'is' : 'are'} in{' '}
                  {[...new Set(found.elsewhere.map((e) => e.count))].join(', ')}
                </span>
              )}
            </>
          )}
          {!ready && <span className="mid">Choose what is to be counted. Phones see nothing before you open it.</span>}
        </p>
        <ProblemNote problem={draw.error ?? (ready ? preview.error : null)} />
        <Acts>
          <Button type="button" next disabled={!ready || found?.bins === 0 || draw.isPending} onClick={() => draw.mutate()}>
            Draw it up
          </Button>
        </Acts>
      </div>
    </Sheet>
  );
}
