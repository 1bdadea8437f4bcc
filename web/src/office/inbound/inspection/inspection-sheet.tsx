import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { boundsWords } from '@vectrum/core/inspection';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { age, day, when } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { AnswerCheck } from './answer-check';
import { JudgeForm } from './judge-form';
import { LinesTable, GlyphCell } from '../../../ui/table';

type Inspection = Dto['InspectionDto'];
type Check = Dto['InspectionCheckDto'];

const VERDICTS: Readonly<Record<string, string>> = { pass: 'passed', quarantine: 'set aside', back: 'back to the supplier' };
const VERDICT_GLYPHS: Readonly<Record<string, GlyphName>> = { pass: 'full', quarantine: 'held', back: 'go' };

const stateOf = (n: Inspection) => (n.closedAt === null ? 'held' : n.passed ? 'passed' : 'rejected, in whole or part');
const checkGlyph = (c: Check): GlyphName => (c.fulfilled === null ? 'empty' : c.fulfilled ? 'full' : 'blocked');

function Checks({ of: n, mayJudge }: { of: Inspection; mayJudge: boolean }) {
  if (n.checks.length === 0) return null;
  return (
    <LinesTable aria-label="Checks">
      <thead>
        <tr>
          <td />
          <th>Looked at</th>
          <th>Should be</th>
          <th>Is</th>
          <th>By</th>
        </tr>
      </thead>
      <tbody>
        {n.checks.map((c) => (
          <tr key={c.no}>
            <GlyphCell>
              <Glyph name={checkGlyph(c)} size={15} says />
            </GlyphCell>
            <td>
              <b>{c.says}</b>
            </td>
            <td>{c.kind === 'yes' ? 'yes' : c.kind === 'measure' ? boundsWords(c) : 'in words'}</td>
            <td>
              {mayJudge && n.closedAt === null ? (
                <AnswerCheck key={c.value} code={n.code} check={c} />
              ) : (
                <span className={c.fulfilled === false ? 'stamped' : ''}>{c.value ? `${c.value} ${c.unit}` : 'not looked at'}</span>
              )}
            </td>
            <td className="mid">{c.who ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function Verdicts({ of: n }: { of: Inspection }) {
  if (n.verdicts.length === 0) return null;
  return (
    <LinesTable aria-label="Verdicts">
      <thead>
        <tr>
          <td />
          <th>Judged</th>
          <th className="num">How much</th>
          <th>Why</th>
          <th>By</th>
          <th>When</th>
        </tr>
      </thead>
      <tbody>
        {n.verdicts.map((v, i) => (
          <tr key={i} className={v.undone ? 'soft' : ''}>
            <GlyphCell>
              <Glyph name={v.undone ? 'undo' : (VERDICT_GLYPHS[v.verdict] ?? 'empty')} size={15} says />
            </GlyphCell>
            <td>
              <b>{v.undone ? 'taken back' : (VERDICTS[v.verdict] ?? v.verdict)}</b>
              {v.returnCode && (
                <Link to={`/inbound/returns/${v.returnCode}`} className="note code block">
                  {v.returnCode}
                </Link>
              )}
            </td>
            <td className="num">
              {v.words}
              {v.lot && <span className="note code">{v.lot}</span>}
            </td>
            <td>{v.reason}</td>
            <td className="mid">{v.who}</td>
            <td className="mid">{when(v.at)}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

/** One delivery of an item that was held: why, what was looked at, and what became of it. */
export function InspectionSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('inspection', code),
    queryFn: () => ask(api.GET('/api/inspections/{code}', { params: { path: { code } } })),
  });
  const mayJudge = me.data?.rights.includes('inspect') ?? false;
  return (
    <ShownSheet query={query} back="/inbound/inspection">
      {(n) => (
        <Sheet
          address={`inbound/inspection/${n.code}`}
          title={n.name}
          about={`Inspection of what came ${day(n.openedAt)}`}
          code={n.code}
          back="/inbound/inspection"
        >
          <Waybill
            columns="1fr 1fr 1.2fr 1.7fr"
            cells={[
              { cap: 'State', value: stateOf(n), note: n.closedAt ? day(n.closedAt) : `for ${age(n.openedAt)}` },
              { cap: n.closedAt ? 'Came' : 'Waits', value: n.words, note: n.waiting.map((w) => w.place).join(', ') || n.site },
              {
                cap: 'From',
                value: n.supplier ?? 'nobody known',
                note: (
                  <Link to={`/inbound/arrivals/${n.arrival}`} className="code">
                    {n.arrival}
                  </Link>
                ),
              },
              { cap: 'Why', value: n.why, note: '' },
            ]}
          />
          <Checks of={n} mayJudge={mayJudge} />
          <Verdicts of={n} />
          {mayJudge && n.waiting.length > 0 && <JudgeForm key={n.waiting.map((w) => w.units).join()} of={n} />}
        </Sheet>
      )}
    </ShownSheet>
  );
}
