import { micro, moneyText } from '@vectrum/core/money';
import { lotWords, spell } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { Link } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { TextButton } from '../../../ui/button';
import { when } from '../../../ui/format';
import { ProblemNote } from '../../../ui/states';
import { ChooseCell } from '../../../ui/table';
import { itemPath } from '../../item-path';

type Line = Dto['CountLineDto'];

const STATE: Readonly<Record<Line['state'], string>> = { open: 'to be counted', counted: '', accepted: 'in the books', dropped: 'let go' };

/** A line with all that whoever decides needs to know, and the move that may put it right. */
export function ReviewLine({
  count: c,
  line: r,
  item,
  mayDecide,
  chosen,
  onChoose,
}: {
  count: Dto['CountDto'];
  line: Line;
  item: ItemFacts | undefined;
  mayDecide: boolean;
  chosen: boolean;
  onChoose: (on: boolean) => void;
}) {
  const me = useMe();
  const units = (n: number) => spell(n, item?.packs ?? []);
  const off = r.counted === null || r.expected === null ? null : r.counted - r.expected;
  const isBeyond = r.state === 'counted' && !r.isWithin;
  return (
    <tr>
      {mayDecide && (r.state === 'counted' ? <ChooseCell says={`${r.item} in ${r.place}`} checked={chosen} onChoose={onChoose} /> : <td />)}
      <td className="code">
        <Link to={`/shelves/places/${r.place}`}>{r.place}</Link>
      </td>
      <td>
        <Link to={itemPath(r.sku)}>
          <b>{r.item}</b>
        </Link>
        <span className="note">
          {[lotWords(item, r.lot), r.isDamaged ? 'damaged' : '', r.isListed ? '' : 'not on the list'].filter(Boolean).join(', ')}
        </span>
      </td>
      <td className="num">
        {r.expected === null ? '' : units(r.expected)}
        <span className="note">{movedWords(r)}</span>
      </td>
      <td className="num">
        {r.counted === null ? <span className="soft">not yet</span> : units(r.counted)}
        {r.earlier.map((e) => (
          <span key={String(e.at)} className="note">
            before {units(e.units)}, {e.by}
          </span>
        ))}
      </td>
      <td className={`num ${isBeyond ? 'stamped' : ''}`}>
        {off === null || off === 0 ? (off === 0 ? 'right' : '') : `${units(Math.abs(off))} ${off < 0 ? 'fewer' : 'more'}`}
        {r.percent !== null && off !== 0 && <span className="note">{Math.abs(r.percent)} %</span>}
      </td>
      {me.data?.seesCosts && (
        <td className="num">{r.value === null || off === 0 ? '' : moneyText(micro(r.value), me.data.homeCurrency)}</td>
      )}
      <td>
        {r.state === 'counted' || r.state === 'open' ? '' : <b>{STATE[r.state]}. </b>}
        {r.reason ?? (off === null ? '' : verdict(r.says))}
        {mayDecide && r.causes.map((cause) => <Cause key={cause.kind} count={c} line={r} cause={cause} />)}
      </td>
      <td>
        {r.by}
        {r.at && <span className="note">{when(r.at)}</span>}
        {r.settledBy && <span className="note">decided by {r.settledBy}</span>}
      </td>
    </tr>
  );
}

/** What stands behind the number, which has a cell of its own. */
const verdict = (says: string): string => {
  const text = says.includes(': ') ? says.slice(says.indexOf(': ') + 2) : says;
  return text.charAt(0).toUpperCase() + text.slice(1);
};

function movedWords(r: Line): string {
  const words = [r.cameIn > 0 ? `${r.cameIn} came since` : '', r.wentOut > 0 ? `${r.wentOut} went since` : ''].filter(Boolean);
  return words.join(', ');
}

function Cause({ count: c, line: r, cause }: { count: Dto['CountDto']; line: Line; cause: Dto['CauseDto'] }) {
  const move = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/counts/{code}/lines/{id}/move', {
          params: { path: { code: c.code, id: r.id } },
          headers: { ...once, ...ifMatch(c.version) },
        }),
      ),
  });
  return (
    <span className="note">
      {cause.says}{' '}
      {cause.canMove && (
        <TextButton type="button" disabled={move.isPending} onClick={() => move.mutate()}>
          Move them in the books
        </TextButton>
      )}
      <ProblemNote problem={move.error} />
    </span>
  );
}
