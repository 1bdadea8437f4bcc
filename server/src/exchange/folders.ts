import { Injectable } from '@nestjs/common';
import type { Right } from '../identity/index.js';

/** Files that are no tables, such as pictures; they go out with everything else, in a folder of their own. */
export interface Folder {
  name: string;
  /** Whoever is given them needs it. */
  right: Right;
  files(): AsyncIterable<{ name: string; bytes: Buffer }>;
}

/** The folders that modules have registered. */
@Injectable()
export class Folders {
  private readonly folders: Folder[] = [];

  register(folder: Folder): void {
    this.folders.push(folder);
  }

  get all(): readonly Folder[] {
    return this.folders;
  }
}
