import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { faultsOf, LABEL_FIELDS, type LabelDesign, type LabelElement, type LabelSubject } from '@vectrum/core/labels';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { api, ask, ifMatch, newKey, type Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Shown, Skeleton } from '../../../ui/states';
import { newDesign, newElement } from './editor-model';
import { ElementFields, MediaFields } from './element-fields';
import { fetchPdf } from './pdf';
import { Page, BlockHead } from '../../../ui/page';
import { Input, Select } from '../../../ui/input';
import { Button, TextLink } from '../../../ui/button';

const LabelCanvas = lazy(async () => ({ default: (await import('./label-canvas')).LabelCanvas }));
const PdfPage = lazy(async () => ({ default: (await import('./pdf-page')).PdfPage }));
const ADD: readonly (readonly [LabelElement['kind'], string])[] = [
  ['text', 'Text'],
  ['barcode', 'Barcode'],
  ['arrow', 'Arrow'],
  ['box', 'Frame'],
];
const SUBJECTS: readonly LabelSubject[] = ['place', 'item', 'badge', 'document'];

/** Designs a label: what stands where, with fields from the record, and beside it the very print. */
export function DesignPage() {
  const { id } = useParams();
  const [params] = useSearchParams();
  const query = useQuery({ queryKey: key('designs'), queryFn: () => ask(api.GET('/api/labels/designs')) });
  return (
    <Shown query={query}>
      {(list) => {
        const kept = list.find((d) => d.id === Number(id ?? params.get('copy')));
        return <Editor key={id ?? 'new'} kept={kept} isNew={id === undefined} />;
      }}
    </Shown>
  );
}

function Editor({ kept, isNew }: { kept: Dto['DesignDto'] | undefined; isNew: boolean }) {
  const navigate = useNavigate();
  const [design, setDesign] = useState<LabelDesign>(() => {
    if (!kept) return newDesign('item');
    const { id: _, version: __, ...rest } = kept as unknown as LabelDesign & { id: number; version: number };
    return isNew ? { ...rest, name: `${rest.name}, copy` } : rest;
  });
  const [selected, setSelected] = useState<string | null>(null);
  const [shown, setShown] = useState(design);
  useEffect(() => {
    const timer = window.setTimeout(() => setShown(design), 350);
    return () => window.clearTimeout(timer);
  }, [design]);
  const faults = faultsOf(design);
  const preview = useQuery({
    queryKey: key('design-sample', shown),
    queryFn: () => fetchPdf('/api/labels/sample', { ...shown, name: shown.name || 'Sample' }),
    enabled: faultsOf(shown).length === 0,
    placeholderData: (was) => was,
    retry: false,
  });
  const save = useAct({
    act: async (_: void, once) => {
      const body = design as unknown as Dto['EditDesignDto'];
      if (isNew || !kept) return (await ask(api.POST('/api/labels/designs', { body, headers: once }))).id;
      await ask(
        api.PUT('/api/labels/designs/{id}', { params: { path: { id: kept.id } }, headers: { ...once, ...ifMatch(kept.version) }, body }),
      );
      return kept.id;
    },
    onDone: () => {
      void navigate('/setup/labels');
    },
  });
  const put = (e: LabelElement) => setDesign((d) => ({ ...d, elements: d.elements.map((x) => (x.id === e.id ? e : x)) }));
  const element = design.elements.find((e) => e.id === selected);
  const add = (kind: LabelElement['kind']) => {
    const e = newElement(design, kind, newKey().slice(0, 8), LABEL_FIELDS[design.subject][0]?.key ?? 'code');
    setDesign({ ...design, elements: [...design.elements, e] });
    setSelected(e.id);
  };
  const takeOut = () => {
    setDesign({ ...design, elements: design.elements.filter((e) => e.id !== selected) });
    setSelected(null);
  };
  const nudge = (dx: number, dy: number) =>
    element && put({ ...element, xMm: Math.max(0, element.xMm + dx), yMm: Math.max(0, element.yMm + dy) });
  return (
    <Page aria-label="Design a label">
      <h1 className="sr">Design a label</h1>
      <div className="design-page">
        <div className="flex flex-col gap-3 min-w-0">
          <div className="flex gap-3 items-end">
            <Field label="Name of the design" className="flex-1">
              <Input value={design.name} onChange={(e) => setDesign({ ...design, name: e.target.value })} />
            </Field>
            <Field label="A label of">
              <Select
                value={design.subject}
                disabled={!isNew}
                onChange={(e) => setDesign({ ...newDesign(e.target.value as LabelSubject), name: design.name, media: design.media })}
              >
                {SUBJECTS.map((s) => (
                  <option key={s} value={s}>
                    {s}s
                  </option>
                ))}
              </Select>
            </Field>
          </div>
          <div className="flex gap-2 items-center">
            <span className="note">Put on:</span>
            {ADD.map(([kind, says]) => (
              <Button key={kind} type="button" onClick={() => add(kind)}>
                {says}
              </Button>
            ))}
          </div>
          <div
            className="label-desk"
            role="application"
            tabIndex={0}
            aria-label="The label; arrow keys move what is chosen, Delete takes it out"
            onKeyDown={(e) => {
              const by = e.shiftKey ? 5 : 0.5;
              const moves: Record<string, [number, number]> = {
                ArrowLeft: [-by, 0],
                ArrowRight: [by, 0],
                ArrowUp: [0, -by],
                ArrowDown: [0, by],
              };
              const move = moves[e.key];
              if (move) nudge(...move);
              else if (e.key === 'Delete' || e.key === 'Backspace') takeOut();
              else if (e.key === 'Escape') setSelected(null);
              else return;
              e.preventDefault();
              e.stopPropagation();
            }}
          >
            <Suspense fallback={<Skeleton rows={6} />}>
              <LabelCanvas design={design} selected={selected} onSelect={setSelected} onChange={put} />
            </Suspense>
          </div>
        </div>
        <div className="flex flex-col gap-4">
          <Field label="Chosen">
            <Select value={selected ?? ''} onChange={(e) => setSelected(e.target.value || null)}>
              <option value="">nothing; touch something on the label</option>
              {design.elements.map((e, i) => (
                <option key={e.id} value={e.id}>
                  {i + 1}, {e.kind === 'text' ? e.text : e.kind === 'barcode' ? `barcode ${e.value}` : e.kind}
                </option>
              ))}
            </Select>
          </Field>
          {element && <ElementFields element={element} subject={design.subject} onChange={put} onTakeOut={takeOut} />}
          <MediaFields media={design.media} onChange={(media) => setDesign({ ...design, media })} />
          <BlockHead>
            <h2>As it prints</h2>
            <span className="note">with samples in its fields</span>
          </BlockHead>
          {preview.data && faults.length === 0 ? (
            <Suspense fallback={<Skeleton rows={3} />}>
              <PdfPage pdf={preview.data} width={360} height={200} says="The print" />
            </Suspense>
          ) : (
            <ul className="faults">
              {faults.map((f) => (
                <li key={f}>{f}</li>
              ))}
            </ul>
          )}
          <ProblemNote problem={save.error ?? preview.error} />
          <div className="flex gap-3 items-center">
            <Button
              type="button"
              next
              disabled={save.isPending || faults.length > 0 || design.name.trim() === ''}
              onClick={() => save.mutate()}
            >
              {design.name.trim() === ''
                ? 'Keep: give it a name'
                : faults.length > 0
                  ? 'Keep: something is not right yet'
                  : 'Keep the design'}{' '}
              <Glyph name="go" size={13} />
            </Button>
            <TextLink to="/setup/labels">Leave it</TextLink>
          </div>
        </div>
      </div>
    </Page>
  );
}
