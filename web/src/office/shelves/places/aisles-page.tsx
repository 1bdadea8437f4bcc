import { useQuery } from '@tanstack/react-query';
import { afresh, useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { aisleBins, faultOfRule, type AisleRule } from '@vectrum/core/walk';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field } from '../../../ui/field';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Problem } from '../../../ui/states';
import { ShelvesWords } from '../shelves-words';
import { Input, Select } from '../../../ui/input';
import { Page, Sentence } from '../../../ui/page';
import { TextLink, Button } from '../../../ui/button';

const SHOWN_BAYS = 12;

/** The front of an aisle as it will stand: levels upwards, bays along; pick faces filled, reserve open. */
function AisleFront({ rule }: { rule: AisleRule }) {
  const bins = aisleBins({ ...rule, to: rule.from }).filter((b) => b.bay <= SHOWN_BAYS);
  const bays = Math.min(SHOWN_BAYS, rule.bays);
  return (
    <div>
      <div className="aisle-front" style={{ gridTemplateColumns: `repeat(${bays}, minmax(52px, 72px))` }}>
        {Array.from({ length: rule.levels }, (_, up) => rule.levels - up).flatMap((level) =>
          Array.from({ length: bays }, (_, i) => {
            const bin = bins.find((b) => b.level === level && b.bay === i + 1);
            return (
              <span key={`${level}/${i}`} className={`code ${bin?.pickable ? 'face' : ''}`}>
                {bin?.code}
              </span>
            );
          }),
        )}
      </div>
      <p className="note mt-2">
        The front of aisle {rule.from}
        {rule.bays > SHOWN_BAYS && `, its first ${SHOWN_BAYS} bays`}. Shaded bins are open to picking, the others are reserve.
      </p>
    </div>
  );
}

/** Builds aisles by rule: what the rule would make is shown and counted before anything is made. */
export function AislesPage() {
  const me = useMe();
  const navigate = useNavigate();
  const zones = useQuery({ queryKey: key('zones'), queryFn: () => ask(api.GET('/api/zones')), staleTime: 60_000 });
  const [values, setValues] = useState({
    siteId: 0,
    from: 'A',
    to: 'H',
    bays: '12',
    levels: '4',
    pickLevels: '2',
    bayM: '2',
    x: '6',
    y: '2',
    gapM: '4',
    zone: '',
  });
  const siteId = values.siteId || (me.data?.sites[0]?.id ?? 0);
  const rule: AisleRule = {
    from: values.from.trim().toUpperCase(),
    to: values.to.trim().toUpperCase(),
    bays: Number(values.bays),
    levels: Number(values.levels),
    pickLevels: Number(values.pickLevels),
    bayM: Number(values.bayM),
  };
  const fault = faultOfRule(rule);
  const body = (preview: boolean): Dto['AislesDto'] => ({
    ...rule,
    siteId,
    x: Number(values.x),
    y: Number(values.y),
    gapM: Number(values.gapM),
    ...(values.zone ? { zone: values.zone } : {}),
    preview,
  });
  const [asked, setAsked] = useState('');
  const wanted = JSON.stringify(body(true));
  useEffect(() => {
    const timer = window.setTimeout(() => setAsked(wanted), 250);
    return () => window.clearTimeout(timer);
  }, [wanted]);
  const preview = useQuery({
    queryKey: key('aisles', asked),
    queryFn: () => ask(api.POST('/api/places/aisles', { body: JSON.parse(asked) as Dto['AislesDto'], headers: afresh() })),
    enabled: asked !== '' && fault === null && siteId > 0,
    placeholderData: (was) => was,
    retry: false,
  });
  const build = useAct({
    act: (_: void, once) => ask(api.POST('/api/places/aisles', { body: body(false), headers: once })),
    onDone: () => {
      void navigate(`/shelves/plan?site=${siteId}`, { state: { built: aisleBins(rule).map((b) => b.code) } });
    },
  });
  const input = (key: keyof typeof values, label: string, width: number, at?: keyof AisleRule) => (
    <Field label={label} fault={at && fault?.field === at ? fault.says : undefined}>
      <Input style={{ width }} value={String(values[key])} onChange={(e) => setValues({ ...values, [key]: e.target.value })} />
    </Field>
  );
  const taken = preview.data?.taken ?? [];
  const ready = fault === null && preview.data && taken.length === 0 && asked === wanted;
  return (
    <Page className="flex flex-col gap-4" aria-label="Build aisles">
      <h1 className="sr">Build aisles</h1>
      <ShelvesWords at="places">
        <TextLink to={`/shelves/plan?site=${siteId}`}>Plan of the site</TextLink>
      </ShelvesWords>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          build.mutate();
        }}
      >
        <div className="flex gap-4 items-start flex-wrap">
          <Field label="Site">
            <Select value={siteId} onChange={(e) => setValues({ ...values, siteId: Number(e.target.value) })}>
              {me.data?.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </Select>
          </Field>
          {input('from', 'Aisles from', 84, 'from')}
          {input('to', 'to', 84, 'to')}
          {input('bays', 'Bays in each', 90, 'bays')}
          {input('levels', 'Levels', 70, 'levels')}
          {input('pickLevels', 'Of them open to picking', 140, 'pickLevels')}
          {input('bayM', 'A bay is wide, m', 110, 'bayM')}
          <Field label="Zone">
            <Select value={values.zone} onChange={(e) => setValues({ ...values, zone: e.target.value })}>
              <option value="">none</option>
              {(zones.data ?? [])
                .filter((z) => z.siteId === siteId)
                .map((z) => (
                  <option key={z.code} value={z.code}>
                    {z.name}
                  </option>
                ))}
            </Select>
          </Field>
        </div>
        <div className="flex gap-4 items-start">
          {input('x', 'First aisle at x, m', 110)}
          {input('y', 'and y, m', 110)}
          {input('gapM', 'Metres to the next aisle', 150)}
        </div>
        {fault === null && <AisleFront rule={rule} />}
        {preview.data && fault === null && (
          <Sentence role="status">
            {plural(preview.data.aisles, 'aisle', 'aisles')}, {plural(preview.data.bins, 'bin', 'bins')} from {preview.data.first} to{' '}
            {preview.data.last}, {whole(preview.data.pickFaces)} of them open to picking
          </Sentence>
        )}
        {taken.length > 0 && (
          <Problem role="alert">
            <Glyph name="blocked" size={18} />
            <p>
              {taken.slice(0, 6).join(', ')} {taken.length === 1 ? 'is a place' : 'are places'} already. Begin with another aisle, or take
              them out first.
            </p>
          </Problem>
        )}
        <ProblemNote problem={build.error ?? preview.error} />
        <div className="flex gap-4">
          <Button next disabled={!ready || build.isPending}>
            {ready
              ? `Build ${plural(preview.data?.bins ?? 0, 'bin', 'bins')}`
              : fault
                ? 'Build: the rule is not right yet'
                : taken.length > 0
                  ? 'Build: those places are there already'
                  : 'Build'}{' '}
            <Glyph name="go" size={13} />
          </Button>
        </div>
      </form>
    </Page>
  );
}
