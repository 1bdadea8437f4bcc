import { micro, moneyText } from '@vectrum/core/money';
import { drawCells, drawLetterhead, finish, type Letterhead, newPaper } from '../paper/index.js';
import type { StatementDto } from './statement.dto.js';

const ROW = 20;

/** A statement on A4: what is open, document by document, and how old it is. */
export async function statementPdf(statement: StatementDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(`Statement ${statement.account}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  const money = (amount: string) => moneyText(micro(amount), statement.currency);
  paper.font('bold').fontSize(18).text('Statement', left, 42);
  paper
    .font('regular')
    .fontSize(10)
    .text([statement.name, ...statement.address].join('\n'), left, 68, { width: wide - 170, height: 64 });
  drawCells(
    paper,
    [
      ['Account', statement.account],
      ['On', statement.asOf],
      ['Owed', money(statement.owed)],
      ['Documents', String(statement.rows.length)],
    ],
    148,
  );
  let y = 206;
  const line = (cells: readonly string[], font: 'regular' | 'bold') => {
    if (y > paper.page.height - 70) {
      paper.addPage();
      y = 42;
    }
    const at = [0, 110, 200, 290, 390];
    paper.font(font).fontSize(9.5);
    for (const [i, text] of cells.entries())
      paper.text(text, left + (at[i] ?? 0), y, { width: i < 3 ? 100 : 90, align: i < 3 ? 'left' : 'right', height: 12, ellipsis: true });
    y += ROW;
  };
  line(['Document', 'Of', 'Due', 'Amount', 'Open'], 'bold');
  for (const r of statement.rows)
    line(
      [r.code, r.issuedOn, r.kind === 'credit' ? 'credit' : r.daysLate > 0 ? `${r.dueOn}, late` : r.dueOn, money(r.gross), money(r.open)],
      'regular',
    );
  y += 10;
  if (y > paper.page.height - 140) {
    paper.addPage();
    y = 42;
  }
  const foot = (says: string, amount: string, font: 'regular' | 'bold') => {
    paper
      .font(font)
      .fontSize(9.5)
      .text(says, left + 160, y, { width: 220, align: 'right' })
      .text(amount, left + 390, y, { width: 90, align: 'right' });
    y += ROW;
  };
  for (const age of statement.ages) foot(age.says, money(age.amount), 'regular');
  foot('Owed in all', money(statement.owed), 'bold');
  return finish(paper);
}
