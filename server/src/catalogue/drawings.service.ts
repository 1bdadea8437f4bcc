import { Injectable } from '@nestjs/common';
import { DRAWINGS } from './drawings.js';
import type { DrawingDto } from './items.dto.js';

/** The drawings that items can be shown by; a house that is tried out brings some of its own. */
@Injectable()
export class Drawings {
  private readonly all = new Map(Object.entries(DRAWINGS));

  register(drawings: Readonly<Record<string, string>>): void {
    for (const [name, svg] of Object.entries(drawings)) this.all.set(name, svg);
  }

  list(): DrawingDto[] {
    return [...this.all].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, svg]) => ({ name, svg }));
  }
}
