import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { lazy, Suspense, useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import { api, ask, ProblemError, type Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Shown, Skeleton } from '../../../ui/states';
import { fetchPdf, saveBlob } from './pdf';
import { Page, FilterLine, Said } from '../../../ui/page';
import { TextLink, TextButton, Button } from '../../../ui/button';
import { Select, TextArea, Input } from '../../../ui/input';
import { WordRow } from '../../../ui/word-links';

const PdfPage = lazy(async () => ({ default: (await import('./pdf-page')).PdfPage }));
const SUBJECTS: Readonly<Record<string, string>> = {
  place: 'Places, by their codes',
  item: 'Items, by their SKUs',
  badge: 'Badges, by their codes',
  document: 'Documents and command cards, by their codes',
};

/** Codes as they are typed, one a line or parted by commas; a SKU may hold spaces, other codes hold none. */
export const codesIn = (text: string, subject: string) =>
  text
    .split(subject === 'item' ? /[\n\r\t,;]+/ : /[\s,;]+/)
    .map((code) => code.trim())
    .filter(Boolean);

/** A code, with how many are in the pack where it says so: "JAR-454-RD×48". */
export function codeAndHolds(text: string): { code: string; holds: number | null } {
  const found = /^(.+)×(\d{1,7})$/.exec(text);
  return found ? { code: found[1] ?? '', holds: Number(found[2]) } : { code: text, holds: null };
}

/** Every command that can be printed on a card. */
const CARDS = [
  'VX-CONFIRM',
  'VX-UNDO',
  'VX-NOT-HERE',
  'VX-DAMAGED',
  'VX-APART',
  'VX-TAKE',
  'VX-LABEL',
  'VX-WEIGH',
  'VX-SERVICE',
  'VX-PARCEL',
  'VX-OPEN',
  'VX-PARK',
  'VX-ALL',
  'VX-LEAVE-OUT',
];

/** Prints labels of records: a design, the records, copies, the first free place of a sheet; the preview is the print. */
export function PrintPage() {
  const [params, setParams] = useSearchParams();
  const designs = useQuery({ queryKey: key('designs'), queryFn: () => ask(api.GET('/api/labels/designs')) });
  const subject = params.get('subject') ?? 'place';
  return (
    <Page aria-label="Print labels">
      <h1 className="sr">Print labels</h1>
      <FilterLine>
        <WordRow aria-label="Labels of">
          {Object.keys(SUBJECTS).map((s) => (
            <a
              key={s}
              href={`?subject=${s}`}
              aria-current={s === subject ? 'true' : undefined}
              onClick={(e) => (e.preventDefault(), setParams({ subject: s }))}
            >
              {s.charAt(0).toUpperCase() + s.slice(1)}s
            </a>
          ))}
        </WordRow>
        <TextLink to="/setup/labels">Designs</TextLink>
      </FilterLine>
      <Shown query={designs}>
        {(list) => {
          const own = list.filter((d) => d.subject === subject);
          return own.length === 0 ? (
            <Empty title="No design for these">
              <Link to="/setup/labels/new">Design one</Link> first.
            </Empty>
          ) : (
            <Form key={subject} subject={subject} designs={own} start={params} />
          );
        }}
      </Shown>
    </Page>
  );
}

function Form({ subject, designs, start }: { subject: string; designs: readonly Dto['DesignDto'][]; start: URLSearchParams }) {
  const [designId, setDesignId] = useState(designs[0]?.id ?? 0);
  const { state: given } = useLocation() as { state: { codes?: string[] } | null };
  const [text, setText] = useState((given?.codes ?? codesIn(start.get('codes') ?? '', subject)).join('\n'));
  const [copies, setCopies] = useState('1');
  const [from, setFrom] = useState('1');
  const [lot, setLot] = useState('');
  const [expires, setExpires] = useState('');
  const [holds, setHolds] = useState(start.get('holds') ?? '1');
  const [printerId, setPrinterId] = useState(0);
  const [page, setPage] = useState(1);
  const [pages, setPages] = useState(1);
  const printers = useQuery({ queryKey: key('printers'), queryFn: () => ask(api.GET('/api/labels/printers')) });
  const boxes = useQuery({ queryKey: key('cartons'), queryFn: () => ask(api.GET('/api/boxes')), enabled: subject === 'document' });
  const design = designs.find((d) => d.id === designId);
  const codes = codesIn(text, subject);
  const body: Dto['PrintLabelsDto'] = {
    designId,
    copies: Math.max(1, Number(copies) || 1),
    start: design?.media.kind === 'sheet' ? Math.max(1, Number(from) || 1) : 1,
    labels: codes.map(codeAndHolds).map(({ code, holds: own }) => ({
      code,
      ...(subject === 'item'
        ? { holds: own ?? Math.max(1, Number(holds) || 1), ...(lot ? { lot } : {}), ...(expires ? { expires } : {}) }
        : {}),
    })),
  };
  const preview = useQuery({
    queryKey: key('labels', body),
    queryFn: () => fetchPdf('/api/labels/pdf', body),
    enabled: codes.length > 0,
    placeholderData: (was) => was,
    retry: false,
    staleTime: 30_000,
  });
  const print = useAct({ act: (_: void, once) => ask(api.POST('/api/labels/print', { body: { ...body, printerId }, headers: once })) });
  const problem = preview.error ?? print.error;
  const count = codes.length * body.copies;
  const per = design?.media.kind === 'sheet' ? design.media.columns * design.media.rows : 1;
  return (
    <div className="print-page">
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          print.mutate();
        }}
      >
        <Field label="Design">
          <Select value={designId} onChange={(e) => setDesignId(Number(e.target.value))}>
            {designs.map((d) => (
              <option key={d.id} value={d.id}>
                {d.name}
              </option>
            ))}
          </Select>
        </Field>
        <Field label={SUBJECTS[subject] ?? 'Codes'} fault={problem instanceof ProblemError ? problem.fields['labels'] : undefined}>
          <TextArea
            className="code"
            data-scan="more"
            style={{ height: 150 }}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder="one a line, or scan them"
          />
        </Field>
        {subject === 'document' && boxes.data && boxes.data.length > 0 && (
          <TextButton type="button" className="self-start" onClick={() => setText(boxes.data.map((b) => `VX-BOX-${b.code}`).join('\n'))}>
            A label for each box
          </TextButton>
        )}
        {subject === 'document' && (
          <TextButton type="button" className="self-start" onClick={() => setText(CARDS.join('\n'))}>
            The command cards
          </TextButton>
        )}
        {subject === 'item' && (
          <div className="grid grid-cols-3 gap-3">
            <Field label="Pack that holds">
              <Input className="num" inputMode="numeric" value={holds} onChange={(e) => setHolds(e.target.value)} />
            </Field>
            <Field label="Lot, if it has one">
              <Input className="code" data-scan="lot" value={lot} onChange={(e) => setLot(e.target.value)} />
            </Field>
            <Field label="Expires">
              <Input type="date" value={expires} onChange={(e) => setExpires(e.target.value)} />
            </Field>
          </div>
        )}
        <div className="grid grid-cols-2 gap-3">
          <Field label="Copies of each">
            <Input className="num" inputMode="numeric" value={copies} onChange={(e) => setCopies(e.target.value)} />
          </Field>
          {design?.media.kind === 'sheet' && (
            <Field label={`First free place, 1 to ${per}`} fault={problem instanceof ProblemError ? problem.fields['start'] : undefined}>
              <Input className="num" inputMode="numeric" value={from} onChange={(e) => setFrom(e.target.value)} />
            </Field>
          )}
        </div>
        <Field label="Printer">
          <Select value={printerId} onChange={(e) => setPrinterId(Number(e.target.value))}>
            <option value={0}>this device’s, or the first of the site</option>
            {printers.data?.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}, {p.site}
              </option>
            ))}
          </Select>
        </Field>
        <ProblemNote problem={problem} />
        {print.isSuccess && (
          <Said role="status">
            <Glyph name="print" /> Sent to {print.data.printer}. <Link to="/setup/printers">The tray</Link> shows how it goes.
          </Said>
        )}
        <div className="flex gap-3 mt-2">
          <Button next disabled={count === 0 || preview.error !== null || print.isPending}>
            {count === 0 ? 'Print: name what to label' : `Print ${plural(count, 'label', 'labels')}`} <Glyph name="go" size={13} />
          </Button>
          <Button
            type="button"

            disabled={!preview.data || preview.error !== null}
            onClick={() => preview.data && saveBlob(preview.data, 'labels.pdf')}
          >
            Save as PDF
          </Button>
        </div>
      </form>
      <div className="print-preview" aria-live="polite">
        {codes.length === 0 ? (
          <Empty title="Nothing to show yet">Name or scan what you want labels for. What appears here is what the printer gets.</Empty>
        ) : preview.data ? (
          <Suspense fallback={<Skeleton rows={5} />}>
            <PdfPage
              pdf={preview.data}
              page={page}
              width={620}
              height={460}
              says={`Preview of ${plural(count, 'label', 'labels')}`}
              onPages={setPages}
            />
            {pages > 1 && (
              <p className="flex gap-3 items-center mt-3">
                <Button type="button" disabled={page <= 1} onClick={() => setPage(page - 1)}>
                  Page before
                </Button>
                <span className="mid">
                  {whole(Math.min(page, pages))} of {whole(pages)}
                </span>
                <Button type="button" disabled={page >= pages} onClick={() => setPage(page + 1)}>
                  Next page
                </Button>
              </p>
            )}
          </Suspense>
        ) : (
          <Skeleton rows={5} />
        )}
      </div>
    </div>
  );
}
