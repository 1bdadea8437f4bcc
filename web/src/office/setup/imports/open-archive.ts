import { ProblemError } from '../../../api/client';

/** What an archive may come to when it is opened here. */
const MOST_BYTES = 1024 * 1024 * 1024;
const PICTURE = /\.(jpe?g|png|webp)$/i;
const TABLE = /\.(csv|tsv|txt|xlsx)$/i;
const ARCHIVE = /\.zip$/i;

export interface Dropped {
  tables: File[];
  pictures: File[];
}

/** Sorts files into spreadsheets and pictures; archives are opened, and whatever else is in them is passed over. */
export async function dropped(files: readonly File[]): Promise<Dropped> {
  const all: File[] = [];
  for (const file of files) all.push(...(ARCHIVE.test(file.name) ? await opened(file) : [file]));
  if (all.length === 0 && files[0]) throw refused(files[0], 'There are no spreadsheets and no pictures in it');
  const pictures = all.filter((f) => PICTURE.test(f.name));
  return { tables: all.filter((f) => !pictures.includes(f)), pictures };
}

async function opened(file: File): Promise<File[]> {
  const { unzipSync } = await import('fflate');
  let bytes = 0;
  const wanted = ({ name, originalSize }: { name: string; originalSize: number }) => {
    if (!(PICTURE.test(name) || TABLE.test(name)) || name.startsWith('__MACOSX/')) return false;
    bytes += originalSize;
    if (bytes > MOST_BYTES) throw refused(file, 'The archive holds more than 1 GB. Part it into several');
    return true;
  };
  const packed = new Uint8Array(await file.arrayBuffer());
  try {
    return Object.entries(unzipSync(packed, { filter: wanted })).map(
      ([path, content]) => new File([content], path.split('/').at(-1) ?? path),
    );
  } catch (thrown) {
    throw thrown instanceof ProblemError
      ? thrown
      : refused(file, 'This archive cannot be opened. Pack it again, or choose its files one by one');
  }
}

const refused = (file: File, says: string) => new ProblemError(400, 'file', `${file.name}: ${says}`);

/** What a picture's file is named for: its name without the folder and the ending. */
export const nameOf = (file: File): string => file.name.replace(PICTURE, '').trim();
