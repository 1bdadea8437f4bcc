import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams, useLocation } from 'react-router';
import { api, ask, ifMatch, newKey, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field, Words } from '../../../ui/field';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Shown, Skeleton } from '../../../ui/states';
import { ShelvesWords } from '../shelves-words';
import type { Shading } from './plan-canvas';
import { draftOf, walkMetres, type Draft, type Shape } from './plan-model';
import { Page, Said, Sentence } from '../../../ui/page';
import { Select, Input } from '../../../ui/input';
import { Button, TextButton, TextLink, TextSummary } from '../../../ui/button';
import { DenseTable } from '../../../ui/table';
import { Waybill } from '../../../ui/sheet';

const PlanCanvas = lazy(async () => ({ default: (await import('./plan-canvas')).PlanCanvas }));

/** The plan of a site: how full and how busy it is, the walk past every bay, and a way to draw it as it stands. */
export function PlanPage() {
  const [params, setParams] = useSearchParams();
  const me = useMe();
  const siteId = Number(params.get('site') ?? me.data?.sites[0]?.id ?? 0);
  const query = useQuery({
    queryKey: key('plan', siteId),
    queryFn: () => ask(api.GET('/api/plans/{siteId}', { params: { path: { siteId } } })),
    enabled: siteId > 0,
  });
  return (
    <Page className="flex flex-col h-full" aria-label="Plan">
      <h1 className="sr">Plan</h1>
      <ShelvesWords at="plan">
        {(me.data?.sites.length ?? 0) > 1 && (
          <Select
            style={{ width: 170 }}
            aria-label="Site"
            value={siteId}
            onChange={(e) => setParams({ site: e.target.value }, { replace: true })}
          >
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </Select>
        )}
      </ShelvesWords>
      <Shown query={query}>
        {(plan) => <Plan key={`${plan.siteId}/${plan.version}`} plan={plan} canEdit={me.data?.rights.includes('set-up') === true} />}
      </Shown>
    </Page>
  );
}

function Plan({ plan, canEdit }: { plan: Dto['PlanDto']; canEdit: boolean }) {
  const navigate = useNavigate();
  const { state: came } = useLocation() as { state: { built?: string[] } | null };
  const built = came?.built ?? [];
  const [draft, setDraft] = useState<Draft>(() => draftOf(plan));
  const [editing, setEditing] = useState(false);
  const [shading, setShading] = useState<Shading>('fullness');
  const [selected, setSelected] = useState<string | null>(null);
  const metres = useMemo(() => walkMetres(draft, plan.bays), [draft, plan.bays]);
  const before = useMemo(() => walkMetres(draftOf(plan), plan.bays), [plan]);
  const save = useAct({
    act: (_: void, once) =>
      ask(
        api.PUT('/api/plans/{siteId}', {
          params: { path: { siteId: plan.siteId } },
          headers: { ...once, ...ifMatch(plan.version) },
          body: {
            widthM: draft.widthM,
            depthM: draft.depthM,
            shapes: draft.shapes.map(({ key: _, ...s }) => s),
            points: draft.points.map(({ code, x, y }) => ({ code, x, y })),
          },
        }),
      ),
  });
  const shape = draft.shapes.find((s) => s.key === selected);
  const put = (next: Shape) => setDraft((d) => ({ ...d, shapes: d.shapes.map((s) => (s.key === next.key ? next : s)) }));
  const draw = (kind: 'walkway' | 'wall') => {
    const key = newKey();
    const mid = { x: Math.round(draft.widthM / 2), y: Math.round(draft.depthM / 2) };
    setDraft((d) => ({ ...d, shapes: [...d.shapes, { key, kind, label: '', x: mid.x - 2, y: mid.y, toX: mid.x + 2, toY: mid.y }] }));
    setSelected(key);
  };
  const takeOut = () => {
    setDraft((d) => ({ ...d, shapes: d.shapes.filter((s) => s.key !== selected) }));
    setSelected(null);
  };
  const used = plan.bays.reduce((n, b) => n + b.used, 0);
  const bins = plan.bays.reduce((n, b) => n + b.bins, 0);
  const moves = plan.bays.reduce((n, b) => n + b.moves, 0);
  const aisles = plan.shapes.filter((s) => s.kind === 'aisle');
  const sentence = `${plan.site}: ${plural(aisles.length, 'aisle', 'aisles')} with ${plural(bins, 'bin', 'bins')}, ${whole(used)} of them with goods; ${plural(moves, 'movement', 'movements')} in the last seven days`;
  if (aisles.length === 0 && plan.points.length === 0 && !editing) {
    return (
      <Empty title="Nothing is drawn yet">
        {canEdit ? <Link to="/shelves/aisles">Build aisles by rule</Link> : 'Whoever sets up places'} first; they appear here, and are
        dragged to where they stand.
      </Empty>
    );
  }
  return (
    <div
      className="plan-page"
      onKeyDown={(e) => {
        if (editing && shape && (e.key === 'Delete' || e.key === 'Backspace') && !(e.target instanceof HTMLInputElement)) takeOut();
      }}
    >
      <div className="plan-side">
        <Sentence>{sentence}</Sentence>
        {built.length > 0 && (
          <Said role="status">
            {plural(built.length, 'bin is', 'bins are')} built.
            <TextLink to="/setup/labels/print?subject=place" state={{ codes: built }}>
              Print labels for {built.length === 1 ? 'it' : `these ${whole(built.length)} bins`}
            </TextLink>
          </Said>
        )}
        <Waybill
          columns="1fr 1fr"
          cells={[
            {
              cap: 'Walk past every bay',
              value: `${whole(metres)} m`,
              note: metres === before ? 'and back' : `${whole(Math.abs(metres - before))} m ${metres < before ? 'saved' : 'more'}`,
            },
            {
              cap: 'Floor',
              value: `${draft.widthM} × ${draft.depthM} m`,
              note: plural(draft.shapes.filter((s) => s.kind === 'walkway').length, 'walkway', 'walkways'),
            },
          ]}
        />
        {!editing && (
          <div className="mt-4">
            <Words<Shading>
              label="Bays filled by"
              value={shading}
              onChange={setShading}
              words={[
                { value: 'fullness', says: 'How full' },
                { value: 'activity', says: 'How busy' },
              ]}
            />
            <p className="note mt-2">
              {shading === 'fullness'
                ? 'A bay is filled by the share of its bins that hold goods.'
                : 'A bay is filled by its movements of the last seven days, the busiest to the top.'}{' '}
              Touch a bay to open its bins.
            </p>
          </div>
        )}
        {editing && (
          <div className="flex flex-col gap-3 mt-4">
            <div className="flex gap-3">
              <Button type="button" onClick={() => draw('walkway')}>
                Draw a walkway
              </Button>
              <Button type="button" onClick={() => draw('wall')}>
                Draw a wall
              </Button>
            </div>
            <div className="flex gap-3">
              <Field label="Floor, m wide">
                <Input
                  className="num"
                  type="number"
                  min={4}
                  max={1000}
                  value={draft.widthM}
                  onChange={(e) => setDraft({ ...draft, widthM: Number(e.target.value) })}
                />
              </Field>
              <Field label="m deep">
                <Input
                  className="num"
                  type="number"
                  min={4}
                  max={1000}
                  value={draft.depthM}
                  onChange={(e) => setDraft({ ...draft, depthM: Number(e.target.value) })}
                />
              </Field>
            </div>
            <Field label="Chosen">
              <Select value={selected ?? ''} onChange={(e) => setSelected(e.target.value || null)}>
                <option value="">nothing; touch something on the plan</option>
                {draft.shapes.map((s, i) => (
                  <option key={s.key} value={s.key}>
                    {s.kind} {s.label || i + 1}
                  </option>
                ))}
              </Select>
            </Field>
            {shape && (
              <ShapeFields
                shape={shape}
                onChange={put}
                onTakeOut={shape.kind === 'aisle' && plan.bays.some((b) => b.aisleId === shape.id) ? undefined : takeOut}
              />
            )}
            {plan.unplaced.filter((u) => !draft.points.some((p) => p.code === u.code)).length > 0 && (
              <Field label="Not on the plan yet">
                <Select
                  value=""
                  onChange={(e) => {
                    const place = plan.unplaced.find((u) => u.code === e.target.value);
                    if (place) setDraft({ ...draft, points: [...draft.points, { ...place, x: 1, y: 1 }] });
                  }}
                >
                  <option value="">put one on the plan</option>
                  {plan.unplaced
                    .filter((u) => !draft.points.some((p) => p.code === u.code))
                    .map((u) => (
                      <option key={u.code} value={u.code}>
                        {u.code}, {u.kind.replace('-', ' ')}
                      </option>
                    ))}
                </Select>
              </Field>
            )}
            <p className="note">Drag what is drawn, or an end of what is chosen. It keeps to half metres; with Alt held, to centimetres.</p>
          </div>
        )}
        <ProblemNote problem={save.error} />
        {canEdit && (
          <div className="flex gap-3 mt-5">
            {editing ? (
              <>
                <Button type="button" next disabled={save.isPending} onClick={() => save.mutate()}>
                  Keep the plan <Glyph name="go" size={13} />
                </Button>
                <Button
                  type="button"

                  onClick={() => {
                    setDraft(draftOf(plan));
                    setEditing(false);
                    setSelected(null);
                  }}
                >
                  Leave it as it was
                </Button>
              </>
            ) : (
              <Button type="button" onClick={() => setEditing(true)}>
                Change the plan
              </Button>
            )}
          </div>
        )}
        <details className="mt-5">
          <TextSummary>As a table</TextSummary>
          <DenseTable className="mt-2">
            <thead>
              <tr>
                <th>Aisle</th>
                <th className="num">From</th>
                <th className="num">To</th>
                <th className="num">Bins</th>
                <th className="num">With goods</th>
              </tr>
            </thead>
            <tbody>
              {draft.shapes
                .filter((s) => s.kind === 'aisle')
                .map((s) => {
                  const own = plan.bays.filter((b) => b.aisleId === s.id);
                  return (
                    <tr key={s.key}>
                      <td>{s.label}</td>
                      <td className="num">
                        {s.x}, {s.y}
                      </td>
                      <td className="num">
                        {s.toX}, {s.toY}
                      </td>
                      <td className="num">{own.reduce((n, b) => n + b.bins, 0)}</td>
                      <td className="num">{own.reduce((n, b) => n + b.used, 0)}</td>
                    </tr>
                  );
                })}
            </tbody>
          </DenseTable>
        </details>
      </div>
      <Suspense fallback={<Skeleton rows={12} />}>
        <div role="img" aria-label={sentence} className="min-h-0 min-w-0 grid">
          <PlanCanvas
            draft={draft}
            bays={plan.bays}
            shading={shading}
            editing={editing}
            selected={selected}
            onSelect={setSelected}
            onShape={put}
            onPoint={(code, x, y) => setDraft((d) => ({ ...d, points: d.points.map((p) => (p.code === code ? { ...p, x, y } : p)) }))}
            onBay={(b) =>
              void navigate(`/shelves/places?search=${encodeURIComponent(b.codes.split(' ')[0]?.replace(/-[^-]*$/, '-') ?? '')}`)
            }
          />
        </div>
      </Suspense>
    </div>
  );
}

/** The chosen shape in figures, for hands without a mouse. */
function ShapeFields({ shape, onChange, onTakeOut }: { shape: Shape; onChange: (s: Shape) => void; onTakeOut: (() => void) | undefined }) {
  const number = (key: 'x' | 'y' | 'toX' | 'toY', label: string) => (
    <Field label={label}>
      <Input
        className="num"
        type="number"
        step={0.5}
        min={0}
        value={shape[key]}
        onChange={(e) => onChange({ ...shape, [key]: Number(e.target.value) })}
      />
    </Field>
  );
  return (
    <>
      <Field label="Label">
        <Input value={shape.label} onChange={(e) => onChange({ ...shape, label: e.target.value })} />
      </Field>
      <div className="grid grid-cols-4 gap-2">
        {number('x', 'From x, m')}
        {number('y', 'y')}
        {number('toX', 'To x')}
        {number('toY', 'y')}
      </div>
      {onTakeOut ? (
        <TextButton type="button" className="self-start" onClick={onTakeOut}>
          Take it out
        </TextButton>
      ) : (
        <span className="note">It has bins along it and must stay.</span>
      )}
    </>
  );
}
