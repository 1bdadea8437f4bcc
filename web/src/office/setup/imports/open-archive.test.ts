import { zipSync } from 'fflate';
import { dropped, nameOf } from './open-archive';

const bytes = (text: string) => new TextEncoder().encode(text);
const archive = (parts: Record<string, string>, name = 'everything.zip') =>
  new File([zipSync(Object.fromEntries(Object.entries(parts).map(([path, text]) => [path, bytes(text)])))], name);
const names = (files: readonly File[]) => files.map((f) => f.name);

describe('files that are dropped', () => {
  it('are parted into spreadsheets and pictures', async () => {
    const { tables, pictures } = await dropped([
      new File(['x'], 'JAR-454.JPG'),
      new File(['SKU'], 'items.csv'),
      new File(['x'], '0095.webp'),
    ]);
    expect([names(tables), names(pictures)]).toEqual([['items.csv'], ['JAR-454.JPG', '0095.webp']]);
  });

  it('come out of an archive whole, without their folders and without what is neither', async () => {
    const file = archive({ '01-items.csv': 'SKU,Name\n', 'pictures/JAR-454.webp': 'webp', 'notes.doc': 'no', '__MACOSX/._JAR.webp': 'no' });
    const { tables, pictures } = await dropped([file]);
    expect([names(tables), names(pictures)]).toEqual([['01-items.csv'], ['JAR-454.webp']]);
    expect(await tables[0]!.text()).toBe('SKU,Name\n');
  });

  it('are refused by name where an archive is none, or holds nothing to take in', async () => {
    await expect(dropped([new File(['no archive'], 'odd.zip')])).rejects.toThrow('odd.zip: This archive cannot be opened');
    await expect(dropped([archive({ 'notes.doc': 'no' }, 'notes.zip')])).rejects.toThrow('no spreadsheets and no pictures');
  });

  it('are named for an item by what stands before the ending', () => {
    expect(nameOf(new File([], 'JAR-454.RD.jpeg'))).toBe('JAR-454.RD');
  });
});
