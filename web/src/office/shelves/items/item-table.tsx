import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useVirtualRows } from '../../../ui/virtual-rows';
import type { useWindows } from '../../../ui/windows';
import { CellEdit } from './cell-edit';
import type { ItemColumn, ItemRow } from './item-columns';
import { Glyph } from '../../../ui/glyph';
import { ChooseCell, DenseTable } from '../../../ui/table';
import { SkeletonLine } from '../../../ui/skeleton-line';

export interface Cell {
  row: number;
  column: number;
}

interface Props {
  list: ReturnType<typeof useWindows<ItemRow>>;
  columns: readonly ItemColumn[];
  open: string | undefined;
  chosen: ReadonlySet<string>;
  sort: string;
  canEdit: boolean;
  /** Whether rows are chosen, to change or print many at once. */
  mayChoose: boolean;
  onOpen: (sku: string) => void;
  onChoose: (skus: string[], on: boolean) => void;
  onSort: (sort: string) => void;
  onChange: (row: ItemRow, column: ItemColumn, value: string) => void;
}

/**
 * The list of items as a grid. A box at each row chooses it, with Shift all rows from the last chosen one; a pen in a cell
 * changes it where it stands. By key: arrows move, Enter opens, F2 changes, Space chooses.
 */
export function ItemTable({ list, columns, open, chosen, sort, canEdit, mayChoose, onOpen, onChoose, onSort, onChange }: Props) {
  const total = list.total ?? 0;
  const box = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState<Cell | null>(null);
  const [editing, setEditing] = useState<Cell | null>(null);
  const anchor = useRef(0);
  const rows = useVirtualRows(box, total, list.see);
  const firstIndex = rows.indexes[0];
  const cellAt = (at: Cell) => box.current?.querySelector<HTMLElement>(`[data-cell="${at.row}/${at.column}"]`);
  useEffect(() => {
    if (active && !editing) cellAt(active)?.focus({ preventScroll: true });
  }, [active, editing, firstIndex]);
  const isHere = useRef(false);
  // A row that is read again may be gone for a moment, and the focus with it: the keys go on where they were meanwhile.
  useEffect(() => {
    const held = document.activeElement;
    if (active && !editing && isHere.current && (held === document.body || held === box.current))
      (cellAt(active) ?? box.current)?.focus({ preventScroll: true });
  });

  const go = (row: number, column: number) => {
    const to = { row: Math.max(0, Math.min(total - 1, row)), column: Math.max(0, Math.min(columns.length - 1, column)) };
    rows.goTo(to.row);
    setActive(to);
    const r = list.row(to.row);
    if (open && r && r.sku !== open) onOpen(r.sku);
  };
  const choose = (row: number, through: boolean) => {
    const [from, to] = through ? [Math.min(anchor.current, row), Math.max(anchor.current, row)] : [row, row];
    const skus = Array.from({ length: to - from + 1 }, (_, i) => list.row(from + i)?.sku).filter((s) => s !== undefined);
    onChoose(skus, through || !chosen.has(skus[0] ?? ''));
    anchor.current = row;
  };
  const onKey = (e: KeyboardEvent, row: number, column: number) => {
    const page = rows.page();
    const moves: Record<string, [number, number]> = {
      ArrowDown: [row + 1, column],
      ArrowUp: [row - 1, column],
      ArrowRight: [row, column + 1],
      ArrowLeft: [row, column - 1],
      PageDown: [row + page, column],
      PageUp: [row - page, column],
      Home: [0, column],
      End: [total - 1, column],
    };
    const to = moves[e.key];
    const r = list.row(row);
    if (to) go(...to);
    else if (e.key === 'Enter' && r) onOpen(r.sku);
    else if (e.key === 'F2' && canEdit && columns[column]?.edit) setEditing({ row, column });
    else if (e.key === ' ') choose(row, e.shiftKey);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const leave = () => {
    setActive(editing);
    setEditing(null);
  };
  return (
    <div
      ref={box}
      tabIndex={-1}
      className="flex-1 overflow-auto min-h-0 outline-none"
      onFocus={() => (isHere.current = true)}
      onBlur={(e) => {
        // Whoever goes elsewhere says where; a row that vanishes does not.
        if (e.relatedTarget !== null && !box.current?.contains(e.relatedTarget)) isHere.current = false;
      }}
      onKeyDown={(e) => {
        if (e.target === box.current && active) onKey(e, active.row, active.column);
      }}
    >
      <DenseTable className="grid-table" role="grid" aria-rowcount={total} aria-busy={list.stale}>
        <thead>
          <tr>
            {mayChoose && <td className="choose" aria-label="Choose" />}
            {columns.map((c) => (
              <th
                key={c.key}
                className={c.num && 'num'}
                aria-sort={sort === c.sort ? 'ascending' : sort === `-${c.sort}` ? 'descending' : undefined}
              >
                {c.sort ? (
                  <button type="button" onClick={() => onSort(sort === c.sort ? `-${c.sort}` : (c.sort ?? ''))}>
                    {c.head}
                    {sort === c.sort ? ' ↑' : sort === `-${c.sort}` ? ' ↓' : ''}
                  </button>
                ) : (
                  c.head
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className={list.stale ? 'stale' : ''}>
          {rows.before > 0 && <tr style={{ height: rows.before }} aria-hidden />}
          {rows.indexes.map((index) => {
            const r = list.row(index);
            if (!r) return <SkeletonRow key={`s${index}`} columns={columns.length + (mayChoose ? 1 : 0)} />;
            return (
              <tr
                key={r.sku}
                data-open
                aria-rowindex={index + 1}
                aria-selected={r.sku === open}
                className={chosen.has(r.sku) ? 'chosen' : ''}
                onClick={() => {
                  anchor.current = index;
                  onOpen(r.sku);
                }}
              >
                {mayChoose && (
                  <ChooseCell
                    className="choose"
                    role="gridcell"
                    aria-label="Choose"
                    says={`Choose ${r.name}`}
                    checked={chosen.has(r.sku)}
                    onChoose={(_, withShift) => choose(index, withShift)}
                  />
                )}
                {columns.map((c, i) => {
                  const isEdited = editing?.row === index && editing.column === i;
                  return (
                    <td
                      key={c.key}
                      role="gridcell"
                      data-cell={`${index}/${i}`}
                      className={c.num ? 'num' : ''}
                      tabIndex={(active ? active.row === index && active.column === i : index === 0 && i === 0) ? 0 : -1}
                      onFocus={() => setActive({ row: index, column: i })}
                      onKeyDown={(e) => !isEdited && onKey(e, index, i)}
                      onDoubleClick={(e) => {
                        if (!canEdit || !c.edit) return;
                        e.stopPropagation();
                        setEditing({ row: index, column: i });
                      }}
                    >
                      {isEdited && c.edit ? (
                        <CellEdit
                          value={c.edit.value(r)}
                          label={`${c.head} of ${r.name}`}
                          onLeave={leave}
                          onKeep={(value, to) => {
                            if (c.edit && value !== c.edit.value(r)) onChange(r, c, value);
                            setEditing(null);
                            if (to) go(to === 'down' ? index + 1 : index, to === 'on' ? i + 1 : to === 'back' ? i - 1 : i);
                          }}
                        />
                      ) : (
                        c.cell(r)
                      )}
                      {canEdit && c.edit && !isEdited && (
                        <button
                          type="button"
                          className="cell-pen"
                          tabIndex={-1}
                          aria-hidden
                          title={`Change ${c.head}`}
                          onClick={(e) => {
                            e.stopPropagation();
                            setEditing({ row: index, column: i });
                          }}
                        >
                          <Glyph name="pen" size={12} />
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            );
          })}
          {rows.behind > 0 && <tr style={{ height: rows.behind }} aria-hidden />}
        </tbody>
      </DenseTable>
    </div>
  );
}

function SkeletonRow({ columns }: { columns: number }) {
  return (
    <tr aria-hidden>
      {Array.from({ length: columns }, (_, i) => (
        <td key={i}>
          <SkeletonLine width={i === 0 ? '70%' : '50%'} apart={0} />
        </td>
      ))}
    </tr>
  );
}
