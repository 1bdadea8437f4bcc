import { hoursOf } from './hours';

const t = (text: string) => new Date(`2026-05-14T${text}`).getTime();
const tomorrow = (text: string) => new Date(`2026-05-15T${text}`).getTime();
const shown = (columns: readonly { from: number; hours: number }[]) =>
  columns.map((c) => `${new Date(c.from).getHours()}${c.hours > 1 ? `+${c.hours}` : ''}`);

describe('the hours that the chart of Now draws', () => {
  it('run from the oldest open promise to the last departure', () => {
    const { columns } = hoursOf(t('11:20'), [t('10:00'), t('15:30')], [t('15:30'), t('16:30')]);
    expect(shown(columns)).toEqual(['10', '11', '12+3', '15', '16']);
  });

  it('begin now where nothing older is open', () => {
    expect(shown(hoursOf(t('14:05'), [t('15:30')], [t('16:30')]).columns)).toEqual(['14', '15', '16']);
  });

  it('are one hour in a house with nothing to do', () => {
    expect(shown(hoursOf(t('03:10'), [], []).columns)).toEqual(['3']);
  });

  it('fold a night, and go over midnight', () => {
    const { columns } = hoursOf(t('22:40'), [t('17:00'), tomorrow('15:30')], [tomorrow('16:30')]);
    expect(shown(columns)).toEqual(['17', '18+4', '22', '23+16', '15', '16']);
  });

  it('draw one or two empty hours, and fold three', () => {
    expect(shown(hoursOf(t('10:00'), [t('13:00')], []).columns)).toEqual(['10', '11', '12', '13']);
    expect(shown(hoursOf(t('10:00'), [t('14:00')], []).columns)).toEqual(['10', '11+3', '14']);
  });

  it('leave out what has gone before they begin', () => {
    const { columns } = hoursOf(t('14:00'), [], [t('09:00'), t('15:00')]);
    expect(shown(columns)).toEqual(['14', '15']);
  });

  it('never go back from left to right, whatever lies in between', () => {
    const { columns, at } = hoursOf(t('20:15'), [t('08:00'), tomorrow('09:30')], [tomorrow('12:00')]);
    const instants = Array.from({ length: 130 }, (_, i) => t('07:00') + i * 15 * 60_000);
    const places = instants.map(at);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(Math.min(...places)).toBe(0);
    expect(Math.max(...places)).toBe(1);
    // Half past eight is in the middle of the first column.
    expect(at(t('08:30'))).toBeCloseTo(0.5 / columns.reduce((sum, c) => sum + c.share, 0));
  });
});
