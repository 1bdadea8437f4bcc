import type { ReactNode } from 'react';
import { TextButton } from '../button';
import { DenseTable } from '../table';

export interface SetUpColumn<R> {
  head: string;
  cell: (row: R) => ReactNode;
  code?: boolean;
  num?: boolean;
}

/** What has been set up, a row each; a row is changed in the form beneath. */
export function SetUpTable<R>({
  rows,
  rowKey,
  rowName,
  columns,
  onChange,
}: {
  rows: readonly R[];
  rowKey: (row: R) => string | number;
  rowName: (row: R) => string;
  columns: readonly SetUpColumn<R>[];
  onChange: (row: R) => void;
}) {
  return (
    <DenseTable className="max-w-[860px]">
      <thead>
        <tr>
          {columns.map((c) => (
            <th key={c.head} className={c.num ? 'num' : undefined}>
              {c.head}
            </th>
          ))}
          <td />
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={rowKey(row)}>
            {columns.map((c) => (
              <td key={c.head} className={c.num ? 'num' : c.code ? 'code' : undefined}>
                {c.cell(row)}
              </td>
            ))}
            <td className="num">
              <TextButton type="button" aria-label={`Change ${rowName(row)}`} onClick={() => onChange(row)}>
                Change
              </TextButton>
            </td>
          </tr>
        ))}
      </tbody>
    </DenseTable>
  );
}
